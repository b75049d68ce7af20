import { Box, Grid, Heading, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { client, take } from "../../api/client";
import type { Choices } from "../../api/types";
import { MainButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { FormProblem, fieldsOf, KitForm, useKit } from "../../forms/kit";
import type { Units } from "../../lib/units";

interface ProductForm {
  chemical: string;
  name: string;
  strength: string;
  package: string;
  first: string;
  upkeep: string;
  most: string;
  repeat: string;
  swim: string;
}

const NO_LABEL = { first: "", upkeep: "", most: "", repeat: "", swim: "" };
const EMPTY: ProductForm = {
  chemical: "sodium_hypochlorite",
  name: "",
  strength: "10",
  package: "",
  ...NO_LABEL,
};
const { Field, Amount, Select } = fieldsOf<ProductForm>();

/** What the label says, as it is sent; nothing where the kind has no dose or none was typed. */
function labelDose(typed: ProductForm) {
  if (typed.first.trim() === "") return null;
  return {
    first: typed.first,
    upkeep: typed.upkeep,
    most: typed.most,
    per: "10000 gal",
    repeat_days: typed.repeat.trim() === "" ? null : typed.repeat,
    swim_wait_min: typed.swim.trim() === "" ? 15 : typed.swim,
  };
}

/** A product by what is in it, how strong, and how it is packed. */
export function AddProduct({ choices, units }: { choices: Choices; units: Units }) {
  const queries = useQueryClient();
  const kit = useKit<ProductForm>({
    start: EMPTY,
    draft: "product",
    send: async (typed, form, id) => {
      await take(
        client.POST("/api/v1/shelf", {
          params: { query: { metric: units === "metric" } },
          body: {
            id,
            name: typed.name,
            chemical: typed.chemical,
            strength_percent: typed.strength,
            package: typed.package,
            label_dose: labelDose(typed),
          },
        }),
      );
      await queries.invalidateQueries({ queryKey: ["shelf"] });
      form.reset(EMPTY);
      notify("On the shelf.");
    },
  });
  const chemical = kit.form.watch("chemical");
  const kind = choices.label_kinds.find(({ key }) => key === chemical);
  const chosen = kind ?? choices.chemicals.find(({ key }) => key === chemical);
  return (
    <Card as="section">
      <Heading as="h2" fontSize="lead" mb="4">
        Add a product
      </Heading>
      <KitForm kit={kit}>
        <Grid gap="4">
          <Select
            name="chemical"
            label="What it is"
            options={[
              ...choices.chemicals.map(({ key, name }) => ({ value: key, label: name })),
              ...choices.label_kinds.map(({ key, name }) => ({
                value: key,
                label: `${name} (by its label)`,
              })),
            ]}
            onPicked={(picked) => {
              const label = choices.label_kinds.find(({ key }) => key === picked);
              const usual = label ?? choices.chemicals.find(({ key }) => key === picked);
              kit.form.setValue("strength", String(usual?.usual_strength_percent ?? 100));
              kit.form.setValue("first", label?.first_text ?? "");
              kit.form.setValue("upkeep", label?.upkeep_text ?? "");
              kit.form.setValue("most", label?.most_text ?? "");
              kit.form.setValue("repeat", String(label?.repeat_days ?? ""));
              kit.form.setValue("swim", String(label?.swim_wait_min ?? ""));
            }}
          />
          <Field name="name" label="Name on the label, if you like" />
          <Amount
            name="strength"
            server="strength_percent"
            label={kind ? "Active part on the label, percent" : "Strength on the label, percent"}
          />
          <Field
            name="package"
            server={["package", "package_ml"]}
            label={chosen?.is_liquid ? "One package, like 2.5 gal" : "One package, like 40 lb"}
          />
          {kind && (
            <Box>
              <Text>{kind.use}</Text>
              {kind.know && <Text color="soft">{kind.know}</Text>}
            </Box>
          )}
          {kind?.first_text && (
            <Box>
              <Heading as="h3" fontSize="body" mb="2">
                What its label says, for 10,000 gal
              </Heading>
              <Text fontSize="note" color="soft" mb="2">
                Filled in as such labels usually read. Yours counts: type what stands there.
              </Text>
              <Grid gap="3" templateColumns="repeat(auto-fit, minmax(8.5rem, 1fr))">
                <Field name="first" label="First dose" />
                <Field name="upkeep" label="Then, each time" />
                <Field name="most" label="Never more than" />
                <Amount name="repeat" server="repeat_days" label="Again after, days" />
                <Amount name="swim" server="swim_wait_min" label="No swimming, minutes" />
              </Grid>
            </Box>
          )}
          <FormProblem
            shown={[
              "chemical",
              "name",
              "strength_percent",
              "package",
              "package_ml",
              "first",
              "upkeep",
              "most",
            ]}
          />
          <MainButton type="submit">Put it on the shelf</MainButton>
        </Grid>
      </KitForm>
    </Card>
  );
}
