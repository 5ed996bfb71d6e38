import { Link, useParams } from "react-router";
import type { Schema } from "../../api/client";
import { Button } from "../../kit/Button";

const MOST_SEED = 1_000_000;

/** A plan that lays a layer differently on every piece: on or off, another one, and where it is shown. */
export function Varied(props: {
  /** Its treatment and id, as the address of its plan names them. */
  layerOf: string;
  varied: Schema["VariedDto"] | null;
  onChange: (varied: Schema["VariedDto"] | null) => void;
}) {
  const { varied } = props;
  const { setId } = useParams();
  return (
    <div>
      <label className="flex min-h-6 items-center gap-1.5 text-xs">
        <input
          type="checkbox"
          checked={varied !== null}
          onChange={(e) => props.onChange(e.target.checked ? fresh(1) : null)}
        />
        Differently on every piece
      </label>
      {varied && (
        <div className="flex flex-wrap items-center gap-1.5">
          <Link to={`/variation/${setId}/${props.layerOf}`} className="min-h-6 text-xs underline">
            Show plan {varied.seed}
          </Link>
          <Button onClick={() => props.onChange({ ...varied, seed: (varied.seed % MOST_SEED) + 1 })}>
            Another
          </Button>
        </div>
      )}
    </div>
  );
}

/** A plan as such layers usually lie. */
const fresh = (seed: number): Schema["VariedDto"] => ({
  seed,
  habit: null,
  meanMm: null,
  marks: null,
  spread: null,
  dealt: null,
});
