import { Box, chakra } from "@chakra-ui/react";
import { useId } from "react";
import type { Option } from "./Pick";
import { FieldLabel, ReadAloud, Wrong } from "./TextField";

interface SelectFieldProps {
  label: string;
  value: string;
  options: readonly Option<string>[];
  onPick: (value: string) => void;
  problem?: string | null | undefined;
  /** It is plain from what stands around; the name is there for who listens. */
  labelHidden?: boolean;
}

const List = chakra("select", {
  base: {
    display: "block",
    w: "100%",
    minH: "44px",
    px: "3",
    color: "ink",
    bg: "card",
    border: "1.5px solid",
    borderColor: "control",
    borderRadius: "10px",
    fontSize: "body",
  },
});

/** One of many from the device's own list; what is wrong stands right under it. */
export function SelectField({
  label,
  value,
  options,
  onPick,
  problem,
  labelHidden = false,
}: SelectFieldProps) {
  const id = useId();
  return (
    <Box w="100%" minW="0">
      <FieldLabel htmlFor={id} {...(labelHidden && { srOnly: true })}>
        {label}
      </FieldLabel>
      <List
        id={id}
        value={value}
        aria-invalid={problem ? true : undefined}
        aria-describedby={problem ? `${id}-problem` : undefined}
        onChange={(event) => onPick(event.target.value)}
      >
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.label}
          </option>
        ))}
      </List>
      <ReadAloud>{problem && <Wrong id={`${id}-problem`}>{problem}</Wrong>}</ReadAloud>
    </Box>
  );
}
