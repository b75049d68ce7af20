import { Box, Flex, Grid, Text } from "@chakra-ui/react";
import { useFieldArray, useWatch } from "react-hook-form";
import type { Trouble } from "../../api/client";
import { SideButton } from "../../components/Button";
import { fieldsOf } from "../../forms/kit";
import type { Units } from "../../lib/units";
import { emptyPart, type PoolForm } from "./form";

const SHAPES = [
  { value: "rectangle", label: "Rectangle" },
  { value: "round", label: "Round" },
  { value: "ellipse", label: "Ellipse" },
  { value: "stadium", label: "Oval, straight sides" },
  { value: "kidney", label: "Kidney" },
] as const;
const SLOPES = [
  { value: "even", label: "Even slope" },
  { value: "profile", label: "Depth profile" },
] as const;

const { Amount, Choice } = fieldsOf<PoolForm>();

interface DimensionsProps {
  units: Units;
  trouble: Trouble | null;
}

/** The pool's parts: shape and dimensions of each; depths by slope or by profile. */
export function Dimensions({ units, trouble }: DimensionsProps) {
  const how = useWatch<PoolForm, "how">({ name: "how" });
  const parts = useFieldArray<PoolForm, "parts">({ name: "parts" });
  return (
    <>
      {how === "typed" && (
        <Text fontSize="note" color="soft">
          Dimensions are not needed then; with them the plan is drawn and shows where to pour.
        </Text>
      )}
      {parts.fields.map(({ id }, index) => (
        <Box
          key={id}
          borderTop={index > 0 ? "1px solid" : "none"}
          borderColor="hairline"
          pt={index > 0 ? "4" : "0"}
        >
          <Part
            index={index}
            unit={units === "us" ? "ft" : "m"}
            problem={(field) =>
              trouble?.field === `parts.${index}.${field}` || trouble?.field === field
                ? trouble.message
                : null
            }
          />
          {index > 0 && (
            <SideButton mt="3" onClick={() => parts.remove(index)}>
              Remove this part
            </SideButton>
          )}
        </Box>
      ))}
      <Box>
        <SideButton onClick={() => parts.append(emptyPart(), { shouldFocus: false })}>
          Add a part (ledge, spa, hopper)
        </SideButton>
      </Box>
    </>
  );
}

interface PartProps {
  index: number;
  unit: string;
  /** What the server found wrong with one of its fields while the volume is reckoned. */
  problem: (field: string) => string | null;
}

function Part({ index, unit, problem }: PartProps) {
  const at = `parts.${index}` as const;
  const [shape, slope] = useWatch<PoolForm, [`${typeof at}.shape`, `${typeof at}.slope`]>({
    name: [`${at}.shape`, `${at}.slope`],
  });
  const field = (
    label: string,
    key: "length" | "width" | "secondWidth" | "shallow" | "deep",
    path: string,
  ) => (
    <Amount
      name={`${at}.${key}`}
      server={`${at}.${path}`}
      label={`${label}, ${unit}`}
      problem={problem(path)}
    />
  );
  return (
    <Grid gap="4">
      <Choice name={`${at}.shape`} label="Shape" options={SHAPES} />
      <Grid templateColumns={{ base: "1fr 1fr", md: "repeat(3, 1fr)" }} gap="4">
        {field(shape === "round" ? "Diameter" : "Length", "length", "length")}
        {shape !== "round" && field(shape === "kidney" ? "Width of one lobe" : "Width", "width", "width")}
        {shape === "kidney" && field("Width of the other", "secondWidth", "second_width")}
      </Grid>
      <Choice name={`${at}.slope`} label="Floor" options={SLOPES} />
      {slope === "even" ? (
        <Grid templateColumns={{ base: "1fr 1fr", md: "repeat(3, 1fr)" }} gap="4">
          {field("Shallow end", "shallow", "depths.0.depth")}
          {field("Deep end", "deep", "depths.1.depth")}
        </Grid>
      ) : (
        <Profile index={index} unit={unit} problem={problem} />
      )}
    </Grid>
  );
}

function Profile({ index, unit, problem }: PartProps) {
  const at = `parts.${index}` as const;
  const rows = useFieldArray<PoolForm, `${typeof at}.profile`>({ name: `${at}.profile` });
  return (
    <Box>
      {rows.fields.map(({ id }, row) => (
        <Flex key={id} gap="4" mb="3" align="end">
          <Amount
            name={`${at}.profile.${row}.distance`}
            server={`${at}.depths.${row}.distance`}
            label={`From the shallow wall, ${unit}`}
            problem={problem(`depths.${row}.distance`)}
          />
          <Amount
            name={`${at}.profile.${row}.depth`}
            server={`${at}.depths.${row}.depth`}
            label={`Depth there, ${unit}`}
            problem={problem(`depths.${row}.depth`)}
          />
        </Flex>
      ))}
      <SideButton onClick={() => rows.append({ distance: "", depth: "" }, { shouldFocus: false })}>
        Add a depth
      </SideButton>
    </Box>
  );
}
