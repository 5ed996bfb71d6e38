// @vitest-environment jsdom
import { act, cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, expect, it } from "vitest";
import { Refused } from "../../api/client";
import { name, z } from "./checks";
import { Restored, Typed } from "./fields";
import { useForm } from "./useForm";

beforeEach(() => localStorage.clear());
afterEach(cleanup);

const schema = z.object({ name: name("The name", 20) });

/** A form whose answers come when the test says so. */
function form(begin = "Lock wall") {
  const sent: string[] = [];
  const answers: ((refusal?: Refused) => void)[] = [];
  function Form() {
    const { form, submit, busy, restored, startOver } = useForm({
      draft: "zone a",
      version: 3,
      schema,
      begin: { name: begin },
      send: ({ name }, from) => {
        sent.push(`${name} ${from}`);
        return new Promise<void>((done, refuse) => answers.push((why) => (why ? refuse(why) : done())));
      },
    });
    return (
      <form noValidate onSubmit={(e) => void submit(e)}>
        <Restored shown={restored} onOver={() => startOver()} />
        <Typed control={form.control} name="name" label="Name" />
        <button disabled={busy}>Store it</button>
      </form>
    );
  }
  const { unmount } = render(<Form />);
  return {
    sent,
    unmount,
    again: () => render(<Form />),
    answer: (refusal?: Refused) => act(async () => answers.shift()!(refusal)),
    field: () => screen.getByLabelText<HTMLInputElement>("Name"),
    hand: userEvent.setup(),
  };
}

it("a form is sent once though Enter is pressed twice, and what was stored is no draft any more", async () => {
  const { sent, answer, field, hand, unmount, again } = form();
  await hand.type(field(), " east{Enter}{Enter}");
  await expect.poll(() => sent).toEqual(["Lock wall east 3"]);
  await answer();
  unmount();
  again();
  expect(field().value).toBe("Lock wall");
  expect(screen.queryByText(/Start over/)).toBeNull();
});

it("what is typed while a form is on its way is there again when it is opened", async () => {
  const { sent, answer, field, hand, unmount, again } = form();
  await hand.type(field(), " east{Enter}");
  await expect.poll(() => sent.length).toBe(1);
  await hand.type(field(), "ern");
  await answer();
  unmount();
  again();
  expect(field().value).toBe("Lock wall eastern");
});

it("what is wrong is said beside its field, which has the focus; nothing is sent", async () => {
  const { sent, field, hand } = form();
  await hand.clear(field());
  await hand.keyboard("{Enter}");
  await screen.findByText("The name is missing.");
  expect([document.activeElement, sent]).toEqual([field(), []]);
});

it("a fault that the server found stands beside its field, and what was typed stays", async () => {
  const { sent, answer, field, hand } = form();
  await hand.type(field(), " east{Enter}");
  await expect.poll(() => sent.length).toBe(1);
  await answer(
    new Refused({
      status: 422,
      code: "invalid",
      detail: "One entry needs another look.",
      errors: [{ field: "name", message: "There is a zone of this name." }],
    } as never),
  );
  await screen.findByText("There is a zone of this name.");
  expect([document.activeElement, field().value]).toEqual([field(), "Lock wall east"]);
});
