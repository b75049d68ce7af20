import { Box, Flex, Grid, Text } from "@chakra-ui/react";
import type { Trouble } from "../../api/client";
import { SideButton } from "../../components/Button";
import { PickOne } from "../../components/Pick";
import { TextField } from "../../components/TextField";
import type { Units } from "../../lib/units";
import { emptyPart, type PartForm, type PoolForm } from "./form";

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

interface DimensionsProps {
  form: PoolForm;
  set: (part: Partial<PoolForm>) => void;
  units: Units;
  trouble: Trouble | null;
}

/** The pool's parts: shape and dimensions of each; depths by slope or by profile. */
export function Dimensions({ form, set, units, trouble }: DimensionsProps) {
  const change = (index: number, part: PartForm) =>
    set({ parts: form.parts.map((old, i) => (i === index ? part : old)) });
  const unit = units === "us" ? "ft" : "m";
  return (
    <>
      {form.how === "typed" && (
        <Text fontSize="note" color="soft">
          Dimensions are not needed then; with them the plan is drawn and shows where to pour.
        </Text>
      )}
      {form.parts.map((part, index) => (
        <Box
          key={index}
          borderTop={index > 0 ? "1px solid" : "none"}
          borderColor="hairline"
          pt={index > 0 ? "4" : "0"}
        >
          <Part
            part={part}
            unit={unit}
            change={(next) => change(index, next)}
            problem={(field) =>
              trouble?.field === `parts.${index}.${field}` || trouble?.field === field
                ? trouble.message
                : null
            }
          />
          {index > 0 && (
            <SideButton mt="3" onClick={() => set({ parts: form.parts.filter((_, i) => i !== index) })}>
              Remove this part
            </SideButton>
          )}
        </Box>
      ))}
      <Box>
        <SideButton onClick={() => set({ parts: [...form.parts, emptyPart()] })}>
          Add a part (ledge, spa, hopper)
        </SideButton>
      </Box>
    </>
  );
}

interface PartProps {
  part: PartForm;
  unit: string;
  change: (part: PartForm) => void;
  problem: (field: string) => string | null;
}

function Part({ part, unit, change, problem }: PartProps) {
  const set = (change_: Partial<PartForm>) => change({ ...part, ...change_ });
  const field = (
    label: string,
    key: "length" | "width" | "secondWidth" | "shallow" | "deep",
    path: string,
  ) => (
    <TextField
      label={`${label}, ${unit}`}
      name={key}
      inputMode="decimal"
      value={part[key]}
      problem={problem(path)}
      onText={(text) => set({ [key]: text })}
    />
  );
  return (
    <Grid gap="4">
      <PickOne label="Shape" options={SHAPES} value={part.shape} onPick={(shape) => set({ shape })} />
      <Grid templateColumns={{ base: "1fr 1fr", md: "repeat(3, 1fr)" }} gap="4">
        {field(part.shape === "round" ? "Diameter" : "Length", "length", "length")}
        {part.shape !== "round" &&
          field(part.shape === "kidney" ? "Width of one lobe" : "Width", "width", "width")}
        {part.shape === "kidney" && field("Width of the other", "secondWidth", "second_width")}
      </Grid>
      <PickOne label="Floor" options={SLOPES} value={part.slope} onPick={(slope) => set({ slope })} />
      {part.slope === "even" ? (
        <Grid templateColumns={{ base: "1fr 1fr", md: "repeat(3, 1fr)" }} gap="4">
          {field("Shallow end", "shallow", "depths.0.depth")}
          {field("Deep end", "deep", "depths.1.depth")}
        </Grid>
      ) : (
        <Profile part={part} unit={unit} set={set} problem={problem} />
      )}
    </Grid>
  );
}

interface ProfileProps {
  part: PartForm;
  unit: string;
  set: (change: Partial<PartForm>) => void;
  problem: (field: string) => string | null;
}

function Profile({ part, unit, set, problem }: ProfileProps) {
  const change = (index: number, key: "distance" | "depth", text: string) =>
    set({ profile: part.profile.map((row, i) => (i === index ? { ...row, [key]: text } : row)) });
  return (
    <Box>
      {part.profile.map((row, index) => (
        <Flex key={index} gap="4" mb="3">
          <TextField
            label={`From the shallow wall, ${unit}`}
            inputMode="decimal"
            value={row.distance}
            problem={problem(`depths.${index}.distance`)}
            onText={(text) => change(index, "distance", text)}
          />
          <TextField
            label={`Depth there, ${unit}`}
            inputMode="decimal"
            value={row.depth}
            problem={problem(`depths.${index}.depth`)}
            onText={(text) => change(index, "depth", text)}
          />
        </Flex>
      ))}
      <SideButton onClick={() => set({ profile: [...part.profile, { distance: "", depth: "" }] })}>
        Add a depth
      </SideButton>
    </Box>
  );
}
