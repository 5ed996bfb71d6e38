import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";

/** The layers a material is in. */
export function Uses({ materialId }: { materialId: string }) {
  const { data } = useQuery({
    queryKey: ["uses", materialId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/shelf/materials/{id}/uses", { params: { path: { id: materialId } }, signal })),
  });
  return (
    <section className="mt-5" aria-label="Used for">
      <h3 className="text-sm font-semibold">Used for</h3>
      {data?.length === 0 && <p className="text-xs text-soft">Not in any layer yet.</p>}
      <ul className="text-xs">
        {data?.map((u) => (
          <li key={`${u.treatment}.${u.layer}`} className="border-t border-line py-1">
            <b>{u.treatment}</b>, layer {u.layer}, {u.technique}
            <span className="block text-soft">{u.zones.join(" · ")}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
