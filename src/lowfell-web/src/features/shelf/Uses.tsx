import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, take } from "../../api/client";
import { Button } from "../../kit/Button";

/** The layers a material is in, and the way to put another in its place. */
export function Uses(props: { materialId: string; workshopId: string; onReplace: () => void }) {
  const { materialId, workshopId } = props;
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
            <Link
              className="inline-flex min-h-6 items-center font-bold underline"
              to={`/treatments/${workshopId}/${u.treatmentId}`}
            >
              {u.treatment}
            </Link>
            , layer {u.layer}, {u.technique}
            <span className="block text-soft">{u.zones.join(" · ")}</span>
          </li>
        ))}
      </ul>
      {data && data.length > 0 && (
        <Button className="mt-2" aria-haspopup="dialog" onClick={props.onReplace}>
          Replace it everywhere…
        </Button>
      )}
    </section>
  );
}
