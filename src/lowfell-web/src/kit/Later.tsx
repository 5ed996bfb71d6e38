import { createElement, type ComponentType } from "react";
import { useLater } from "./useLater";

/** A part of a view that is drawn once its bundle is there, and is missed by nothing until then. */
export function Later<P extends object>(props: {
  load: () => Promise<ComponentType<P>>;
  wanted: boolean;
  with: P;
}) {
  const part = useLater(props.load, props.wanted);
  return part && createElement(part, props.with);
}
