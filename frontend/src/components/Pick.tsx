import { Box, chakra, Flex, Text } from "@chakra-ui/react";
import { useId } from "react";

export interface Option<T extends string> {
  value: T;
  label: string;
}

interface PickProps<T extends string> {
  label: string;
  options: readonly Option<T>[];
  value: T | null;
  onPick: (value: T) => void;
  /** The label beside the choices where there is room. */
  inline?: boolean;
}

const Chip = chakra("label", {
  base: {
    display: "inline-flex",
    alignItems: "center",
    minH: "44px",
    px: "4",
    border: "1.5px solid",
    borderColor: "control",
    borderRadius: "10px",
    bg: "card",
    cursor: "pointer",
    "&:has(input:checked)": { bg: "ink", color: "card", borderColor: "ink", fontWeight: "650" },
    "&:has(input:focus-visible)": { outline: "3px solid {colors.rope}", outlineOffset: "2px" },
  },
});
const Hidden = chakra("input", { base: { position: "absolute", opacity: 0, w: "1px", h: "1px" } });

/** One of several, in one tap. */
export function PickOne<T extends string>({ label, options, value, onPick, inline = false }: PickProps<T>) {
  const name = useId();
  return (
    <Box
      as="fieldset"
      border="0"
      p="0"
      m="0"
      minW="0"
      display={{ base: "block", md: inline ? "flex" : "block" }}
    >
      <Text
        as="legend"
        fontSize="note"
        color="soft"
        mb="1"
        float={inline ? { md: "left" } : undefined}
        minW={inline ? { md: "10rem" } : undefined}
        flexShrink="0"
        lineHeight={inline ? { md: "44px" } : undefined}
      >
        {label}
      </Text>
      <Flex gap="2" wrap="wrap" align="start">
        {options.map((option) => (
          <Chip key={option.value}>
            <Hidden
              type="radio"
              name={name}
              checked={value === option.value}
              onChange={() => onPick(option.value)}
            />
            {option.label}
          </Chip>
        ))}
      </Flex>
    </Box>
  );
}

/** Any of several, one tap each. */
export function PickMany({
  label,
  options,
  values,
  onToggle,
  inline = false,
}: {
  label: string;
  options: readonly (string | Option<string>)[];
  values: readonly string[];
  onToggle: (value: string) => void;
  inline?: boolean;
}) {
  return (
    <Box
      as="fieldset"
      border="0"
      p="0"
      m="0"
      minW="0"
      display={{ base: "block", md: inline ? "flex" : "block" }}
    >
      <Text
        as="legend"
        fontSize="note"
        color="soft"
        mb="1"
        float={inline ? { md: "left" } : undefined}
        minW={inline ? { md: "10rem" } : undefined}
        flexShrink="0"
        lineHeight={inline ? { md: "44px" } : undefined}
      >
        {label}
      </Text>
      <Flex gap="2" wrap="wrap" align="start">
        {options
          .map((option) => (typeof option === "string" ? { value: option, label: option } : option))
          .map(({ value, label: words }) => (
            <Chip key={value}>
              <Hidden type="checkbox" checked={values.includes(value)} onChange={() => onToggle(value)} />
              {words}
            </Chip>
          ))}
      </Flex>
    </Box>
  );
}
