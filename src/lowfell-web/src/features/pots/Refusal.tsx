import { Alert } from "../../kit/Alert";

/** Why something was not done, where no field is meant. */
export const Refusal = ({ says }: { says: string }) => <Alert className="mt-2">{says}</Alert>;
