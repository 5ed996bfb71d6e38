import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { hindered } from "../../api/hindered";
import { workshopsQuery } from "../../api/queries";
import { useCommands } from "../../kit/keys";
import { Trouble } from "../../kit/Trouble";
import { presetsQuery } from "../../shared/designs/presets";
import { Steps } from "./Steps";

/** Five steps from an empty bench to a first set; never a blank form. */
export function Component() {
  const { workshopId = "new" } = useParams();
  const workshops = useQuery(workshopsQuery);
  const presets = useQuery(presetsQuery);
  const error = hindered(workshops, presets);
  useCommands("New set", [], { view: true, ready: !!error || (!!workshops.data && !!presets.data) });
  if (error)
    return (
      <Trouble
        error={error}
        retry={() => {
          void workshops.refetch();
          void presets.refetch();
        }}
      />
    );
  if (!workshops.data || !presets.data) return null;
  return (
    <Steps
      key={workshopId}
      workshop={workshops.data.find((w) => w.id === workshopId)}
      presets={presets.data}
      first={workshops.data.every((w) => w.sets.length === 0)}
    />
  );
}
