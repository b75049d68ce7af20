import { screen, waitFor } from "@testing-library/react";
import { beforeEach, expect, it } from "vitest";
import { Trouble } from "../api/client";
import { render } from "../testing/render";
import { FormProblem, fieldsOf, KitForm, KitPart, useKit, useSaving } from "./kit";

interface Typed {
  name: string;
  volume: string;
  kind: string;
  shape: string;
  public: boolean;
  back: boolean;
}
const { Field, Amount, Choice, Select, Either, Check } = fieldsOf<Typed>();
const START: Typed = { name: "", volume: "", kind: "a", shape: "", public: false, back: false };
const OPTIONS = [
  { value: "a", label: "First" },
  { value: "b", label: "Second" },
];
const sent: Typed[] = [];
let trouble: unknown = null;
beforeEach(() => {
  sent.length = 0;
  trouble = null;
});

function Busy() {
  return <output>{useSaving() ? "sending" : "at rest"}</output>;
}

function Form({ draft }: { draft?: string }) {
  const kit = useKit<Typed>({
    start: START,
    ...(draft === undefined ? {} : { draft }),
    send: async (typed) => {
      if (trouble !== null) throw trouble;
      sent.push(structuredClone(typed));
    },
  });
  return (
    <KitForm kit={kit} aria-label="The form">
      <Field name="name" label="Name" />
      <Amount name="volume" server={["volume_l", "basin.volume"]} label="Volume" />
      <Choice name="kind" label="Kind" options={OPTIONS} />
      <Select name="shape" label="Shape" options={[{ value: "", label: "choose" }, ...OPTIONS]} />
      <Either name="public" label="Who" no="A household" yes="The public" />
      <Check name="back" label="Come back" />
      <FormProblem shown={["name"]} />
      <Busy />
      <button type="submit">Keep</button>
      <button type="button" onClick={kit.forget}>
        Forget
      </button>
    </KitForm>
  );
}

it("sends everything as it was typed and picked; no number is made of a text", async () => {
  const { user } = render(<Form />);
  await user.type(screen.getByLabelText("Name"), "Millrace");
  await user.type(screen.getByLabelText("Volume"), "2,700 gal");
  await user.click(screen.getByText("Second", { selector: "label" }));
  await user.selectOptions(screen.getByLabelText("Shape"), "b");
  await user.click(screen.getByText("The public"));
  await user.click(screen.getByLabelText("Come back"));
  await user.click(screen.getByText("Keep"));
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]).toEqual({
    name: "Millrace",
    volume: "2,700 gal",
    kind: "b",
    shape: "b",
    public: true,
    back: true,
  });
});

it("says what the server would not have at the field it names, once", async () => {
  const { user } = render(<Form />);
  await user.type(screen.getByLabelText("Volume"), "lots");
  trouble = new Trouble("Write a number.", "basin.volume", 422);
  await user.click(screen.getByText("Keep"));
  await waitFor(() => expect(screen.getByLabelText("Volume").getAttribute("aria-invalid")).toBe("true"));
  expect(screen.getByLabelText<HTMLInputElement>("Volume").value).toBe("lots");
  trouble = new Trouble("Give it a name.", "settings.name", 422);
  await user.click(screen.getByText("Keep"));
  await waitFor(() => expect(screen.getAllByText("Give it a name.")).toHaveLength(1));
  expect(screen.getByLabelText("Name").getAttribute("aria-invalid")).toBe("true");
});

it("says at its end what no field says, also what was no answer of the server", async () => {
  const { user } = render(<Form />);
  trouble = new Error("It is late.");
  await user.click(screen.getByText("Keep"));
  expect((await screen.findByRole("alert")).textContent).toBe("It is late.");
  trouble = null;
  await user.click(screen.getByText("Keep"));
  await waitFor(() => expect(screen.queryByRole("alert")).toBeNull());
});

it("keeps what is typed on this device until it is forgotten", async () => {
  const first = render(<Form draft="form" />);
  await first.user.type(screen.getByLabelText("Name"), "Weir");
  first.unmount();
  const { user } = render(<Form draft="form" />);
  expect(screen.getByLabelText<HTMLInputElement>("Name").value).toBe("Weir");
  await user.click(screen.getByText("Forget"));
  expect(localStorage.getItem("kumpan.draft.form")).toBeNull();
});

it("begins anew where what this device kept cannot be read", () => {
  localStorage.setItem("kumpan.draft.form", "{");
  render(<Form draft="form" />);
  expect(screen.getByLabelText<HTMLInputElement>("Name").value).toBe("");
});

function Nested() {
  const outer = useKit<Typed>({ start: START, send: async (typed) => sent.push(typed) });
  const inner = useKit<Typed>({ start: START, send: async () => undefined });
  return (
    <KitForm kit={outer}>
      <KitPart kit={inner}>
        <Field name="name" label="Inner" />
      </KitPart>
    </KitForm>
  );
}

it("sends nothing on Enter in fields that stand inside another form", async () => {
  const { user } = render(<Nested />);
  await user.type(screen.getByLabelText("Inner"), "2 qt{Enter}");
  expect(sent).toEqual([]);
});
