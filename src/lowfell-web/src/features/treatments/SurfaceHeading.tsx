import { api, type Schema } from "../../api/client";
import { Inline } from "../../kit/Inline";
import { plural } from "../../kit/severity";
import { Select } from "../../kit/Select";
import type { useChange } from "../../shared/useChange";

const where = (z: Schema["TreatmentUse"]) => `${z.zone}, ${z.design}`;

/** What a surface is called, which zones take it, and what it stands on where it is a detail. */
export function SurfaceHeading(props: {
  surface: Schema["SurfaceEntry"];
  order: Schema["TreatmentOrder"];
  change: ReturnType<typeof useChange>[0];
  busy: boolean;
}) {
  const { surface, order, change, busy } = props;
  const store = (words: string | null, with_: { name?: string; onId?: string | null }) =>
    change(words, (headers) =>
      api.PUT("/api/treatments/{treatmentId}/surfaces", {
        headers,
        params: { path: { treatmentId: order.id } },
        body: {
          version: order.version,
          surfaces: order.surfaces.map(({ id, name, onId }) => ({
            id,
            name,
            onId,
            ...(id === surface.id && with_),
          })),
        },
      }),
    );
  const on = order.surfaces.find((s) => s.id === surface.onId);
  const bears = order.surfaces.some((s) => s.onId === surface.id);
  return (
    <>
      <Inline
        label={`Name of the surface ${surface.name}`}
        value={surface.name}
        most={120}
        onStore={(name) => store(null, { name })}
      />
      <span className="block truncate px-1 text-soft" title={surface.zones.map(where).join("\n")}>
        {surface.zones.length === 0 ? "no zone takes it" : plural(surface.zones.length, "zone")}
      </span>
      {!bears && (
        <Select
          label={`What ${surface.name} stands on`}
          hideLabel
          value={surface.onId ?? ""}
          options={[
            { value: "", text: "by itself" },
            ...order.surfaces
              .filter((s) => s.id !== surface.id && !s.onId)
              .map((s) => ({ value: s.id, text: `on ${s.name}` })),
          ]}
          disabled={busy}
          onChange={(id) => {
            const now = order.surfaces.find((s) => s.id === id);
            void store(
              now
                ? `${surface.name} is a detail on ${now.name} now.`
                : `${surface.name} stands by itself again.`,
              { onId: now?.id ?? null },
            );
          }}
        />
      )}
      {on && (
        <button
          type="button"
          className="min-h-6 px-1 text-soft underline decoration-dotted underline-offset-2 hover:text-ink"
          disabled={busy}
          onClick={() =>
            void change(
              `${surface.name} is left out: it is painted over with ${on.name}, and shows what that shows.`,
              (headers) =>
                api.POST("/api/treatments/{treatmentId}/surfaces/{surfaceId}/leave-out", {
                  headers,
                  params: { path: { treatmentId: order.id, surfaceId: surface.id } },
                  body: { version: order.version },
                }),
            )
          }
        >
          Leave out
        </button>
      )}
    </>
  );
}
