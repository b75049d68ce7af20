import { Grid, Heading } from "@chakra-ui/react";
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
}

const EMPTY: ProductForm = { chemical: "sodium_hypochlorite", name: "", strength: "10", package: "" };
const { Field, Amount, Select } = fieldsOf<ProductForm>();

/** A product by what is in it, how strong, and how it is packed. */
export function AddProduct({ choices, units }: { choices: Choices; units: Units }) {
  const queries = useQueryClient();
  const kit = useKit<ProductForm>({
    start: EMPTY,
    draft: "product",
    send: async (typed, form) => {
      await take(
        client.POST("/api/v1/shelf", {
          params: { query: { metric: units === "metric" } },
          body: {
            id: crypto.randomUUID(),
            name: typed.name,
            chemical: typed.chemical,
            strength_percent: typed.strength,
            package: typed.package,
          },
        }),
      );
      await queries.invalidateQueries({ queryKey: ["shelf"] });
      form.reset(EMPTY);
      notify("On the shelf.");
    },
  });
  const chemical = kit.form.watch("chemical");
  const chosen = choices.chemicals.find(({ key }) => key === chemical);
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
            options={choices.chemicals.map(({ key, name }) => ({ value: key, label: name }))}
            onPicked={(picked) => {
              const usual = choices.chemicals.find(({ key }) => key === picked)?.usual_strength_percent;
              kit.form.setValue("strength", String(usual ?? 100));
            }}
          />
          <Field name="name" label="Name on the label, if you like" />
          <Amount name="strength" server="strength_percent" label="Strength on the label, percent" />
          <Field
            name="package"
            server={["package", "package_ml"]}
            label={chosen?.is_liquid ? "One package, like 2.5 gal" : "One package, like 40 lb"}
          />
          <FormProblem shown={["chemical", "name", "strength_percent", "package", "package_ml"]} />
          <MainButton type="submit">Put it on the shelf</MainButton>
        </Grid>
      </KitForm>
    </Card>
  );
}
