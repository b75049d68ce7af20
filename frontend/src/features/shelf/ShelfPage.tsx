import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { client, Trouble, take } from "../../api/client";
import { choicesQuery, shelfQuery } from "../../api/queries";
import type { Choices, ShelfLine } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { SelectField } from "../../components/SelectField";
import { Failed, Loading } from "../../components/States";
import { TextField } from "../../components/TextField";
import { personId } from "../../lib/person";
import { useStore } from "../../lib/store";
import { type Units, unitsStore } from "../../lib/units";
import { useDraft } from "../../lib/useDraft";

/** What stands on the shelf: stock is bought minus poured. */
export function ShelfPage() {
  const units = useStore(unitsStore);
  const shelf = useQuery(shelfQuery(units));
  const choices = useQuery(choicesQuery());
  useEffect(() => {
    document.title = "Shelf · Kumpan";
  }, []);
  if (shelf.isPending || choices.isPending) return <Loading what="the shelf" />;
  if (shelf.isError) return <Failed error={shelf.error} again={() => void shelf.refetch()} />;
  if (choices.isError) return <Failed error={choices.error} again={() => void choices.refetch()} />;
  return (
    <>
      <Heading as="h1" fontSize="title" mb="4">
        Shelf
      </Heading>
      <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 24rem" }} gap="5" alignItems="start">
        <Card>
          {shelf.data.length === 0 && (
            <Text>
              Nothing on the shelf yet. Until then sheets are reckoned with a standard shelf: liquid chlorine,
              acid, sodas, calcium, stabiliser, salt.
            </Text>
          )}
          <Box as="ul" listStyleType="none" p="0" m="0">
            {shelf.data.map((line, index) => (
              <ProductLine key={line.id} line={line} first={index === 0} />
            ))}
          </Box>
        </Card>
        <AddProduct choices={choices.data} units={units} />
      </Grid>
    </>
  );
}

function ProductLine({ line, first }: { line: ShelfLine; first: boolean }) {
  const queries = useQueryClient();
  const [packages, setPackages] = useState("");
  const [problem, setProblem] = useState<string | null>(null);

  async function buy() {
    try {
      await take(
        client.POST("/api/v1/shelf/purchases", {
          body: {
            id: crypto.randomUUID(),
            at: null,
            person_id: personId(),
            product_id: line.id,
            packages: Number(packages.replace(",", ".")),
            price: null,
          },
        }),
      );
      await queries.invalidateQueries({ queryKey: ["shelf"] });
      setPackages("");
      setProblem(null);
      notify(`Noted: ${packages} of ${line.label}.`);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  }

  return (
    <Box as="li" py="3" borderTop={first ? "none" : "1px solid"} borderColor="hairline">
      <Flex justify="space-between" align="end" gap="4" wrap="wrap">
        <Box>
          <Text fontWeight="650">{line.label}</Text>
          <Text fontSize="note" color="soft">
            Left: {line.stock_text}
            {line.poured_text && ` · poured ${line.poured_text}`}
          </Text>
        </Box>
        <form
          onSubmit={(event) => {
            event.preventDefault();
            void buy();
          }}
        >
          <Flex gap="2" align="end">
            <Box w="7rem">
              <TextField
                label="Bought"
                inputMode="decimal"
                aria-label={`Packages bought of ${line.label}`}
                value={packages}
                problem={problem}
                onText={setPackages}
              />
            </Box>
            <SideButton type="submit" disabled={packages.trim() === ""}>
              Note it
            </SideButton>
          </Flex>
        </form>
      </Flex>
    </Box>
  );
}

interface ProductForm {
  chemical: string;
  name: string;
  strength: string;
  package: string;
}

function AddProduct({ choices, units }: { choices: Choices; units: Units }) {
  const queries = useQueryClient();
  const empty: ProductForm = { chemical: "sodium_hypochlorite", name: "", strength: "10", package: "" };
  const [form, change] = useDraft<ProductForm>("product", empty);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const chosen = choices.chemicals.find(({ key }) => key === form.chemical);

  async function add() {
    try {
      const strength_percent = Number(form.strength.replace(",", "."));
      await take(
        client.POST("/api/v1/shelf", {
          params: { query: { metric: units === "metric" } },
          body: {
            id: crypto.randomUUID(),
            name: form.name,
            chemical: form.chemical,
            strength_percent,
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
