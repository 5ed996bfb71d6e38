import { Link } from "react-router";

/** What an address names is not there: said, with the way on. */
export function NotHere(props: { what: string; to: string; words: string }) {
  return (
    <div role="alert" className="mx-auto max-w-xl p-10">
      <h1 className="text-lg font-semibold">That is not here</h1>
      <p className="mt-2">{props.what}</p>
      <Link className="mt-4 inline-block underline" to={props.to}>
        {props.words}
      </Link>
    </div>
  );
}
