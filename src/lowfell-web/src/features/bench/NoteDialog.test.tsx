// @vitest-environment jsdom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, it } from "vitest";
import { NoteDialog } from "./NoteDialog";
import type { Piece, Task, Told } from "./types";

afterEach(cleanup);

const piece = (label: string) => ({ id: label, label, state: "open", begunAt: null, planned: "" }) as Piece;
const task = (...labels: string[]) =>
  ({
    zoneId: "zone",
    layerId: "layer",
    zone: "Coping",
    technique: "prime",
    pieces: labels.map(piece),
    mishaps: [],
  }) as unknown as Task;

it("says what is missing when the piece it was opened for is laid elsewhere meanwhile", async () => {
  const user = userEvent.setup();
  const told: Told[] = [];
  const dialog = (at: Task) => (
    <NoteDialog
      kind="mishap"
      task={at}
      piece={at.pieces[0]!}
      wet={[]}
      out={new Set()}
      onClose={() => undefined}
      onTell={(t) => told.push(t)}
    />
  );
  const { rerender } = render(dialog(task("B1", "B2", "B3")));
  await user.type(screen.getByLabelText("What happened"), "a thumb in it");
  expect(screen.queryByText("Choose the pieces it is about.")).toBeNull();
  rerender(dialog(task("B2", "B3")));
  expect(screen.getByText("Choose the pieces it is about.")).toBeTruthy();
  expect((screen.getByLabelText("What happened") as HTMLTextAreaElement).value).toBe("a thumb in it");
  await user.click(screen.getByRole("button", { name: "B3" }));
  await user.click(screen.getByRole("button", { name: "Keep it" }));
  expect(told).toMatchObject([{ kind: "mishap", note: "a thumb in it", pieceIds: ["B3"] }]);
});
