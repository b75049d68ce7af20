import { Grid, Heading, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, Trouble, take } from "../../api/client";
import type { Choices } from "../../api/types";
import { MainButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { SelectField } from "../../components/SelectField";
import { TextField } from "../../components/TextField";
import type { Units } from "../../lib/units";
import { useDraft } from "../../lib/useDraft";

interface ProductForm {
  chemical: string;
  name: string;
  strength: string;
  package: string;
}

/** A product by what is in it, how strong, and how it is packed. */
export function AddProduct({ choices, units }: { choices: Choices; units: Units }) {
  const queries = useQueryClient();
  const empty: ProductForm = { chemical: "sodium_hypochlorite", name: "", strength: "10", package: "" };
  const [form, change] = useDraft<ProductForm>("product", empty);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const chosen = choices.chemicals.find(({ key }) => key === form.chemical);

  async function add() {
    try {
      await take(
        client.POST("/api/v1/shelf", {
          params: { query: { metric: units === "metric" } },
          body: {
            id: crypto.randomUUID(),
            name: form.name,
            chemical: form.chemical,
            strength_percent: form.strength,
            package: form.package,
          },
        }),
      );
      await queries.invalidateQueries({ queryKey: ["shelf"] });
      change(empty);
      setTrouble(null);
      notify("On the shelf.");
    } catch (error) {
      setTrouble(error instanceof Trouble ? error : new Trouble(String(error), null, 0));
    }
  }

  const problem = (field: string) => (trouble?.field === field ? trouble.message : null);
  return (
    <Card as="section">
      <Heading as="h2" fontSize="lead" mb="4">
        Add a product
      </Heading>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void add();
        }}
      >
        <Grid gap="4">
          <SelectField
            label="What it is"
            value={form.chemical}
            options={choices.chemicals.map(({ key, name }) => ({ value: key, label: name }))}
            onPick={(chemical) => {
              const usual = choices.chemicals.find(({ key }) => key === chemical)?.usual_strength_percent;
              change({ ...form, chemical, strength: String(usual ?? 100) });
            }}
          />
          <TextField
            label="Name on the label, if you like"
            value={form.name}
            onText={(name) => change({ ...form, name })}
          />
          <TextField
            label="Strength on the label, percent"
            inputMode="decimal"
            value={form.strength}
            problem={problem("strength_percent")}
            onText={(strength) => change({ ...form, strength })}
          />
          <TextField
            label={chosen?.is_liquid ? "One package, like 2.5 gal" : "One package, like 40 lb"}
            value={form.package}
            problem={problem("package") ?? problem("package_ml")}
            onText={(text) => change({ ...form, package: text })}
          />
          {trouble !== null && trouble.field === null && (
            <Text role="alert" color="accent" fontWeight="600">
              {trouble.message}
            </Text>
          )}
          <MainButton type="submit">Put it on the shelf</MainButton>
        </Grid>
      </form>
    </Card>
  );
}
