import { Box, chakra, type HTMLChakraProps } from "@chakra-ui/react";
import { type ReactNode, type Ref, useId } from "react";

/** What a field is called, above it. */
export const FieldLabel = chakra("label", {
  base: {
    display: "block",
    fontSize: "note",
    lineHeight: "1.25rem",
    color: "soft",
    fontWeight: "500",
    mb: "1.5",
  },
});
const Typed = chakra("input", {
  base: {
    display: "block",
    w: "100%",
    minW: "0",
    minH: "44px",
    px: "3",
    bg: "card",
    border: "1.5px solid",
    borderColor: "control",
    borderRadius: "10px",
    fontSize: "lead",
    lineHeight: "1.25rem",
    appearance: "none",
    _invalid: { borderColor: "accent" },
    _disabled: { opacity: "0.5", cursor: "not-allowed" },
  },
});
const Said = chakra("p", { base: { color: "soft", fontSize: "note", lineHeight: "1rem", mt: "1.5" } });

/** What is wrong with a field, under it. */
export const Wrong = chakra("p", {
  base: { color: "accent", fontWeight: "600", fontSize: "note", lineHeight: "1rem", mt: "1.5" },
});

/** There before anything stands in it: only then does a screen reader read aloud what comes. */
export function ReadAloud({ children }: { children: ReactNode }) {
  return <div aria-live="polite">{children}</div>;
}

interface TextFieldProps extends Omit<HTMLChakraProps<"input">, "onChange" | "ref"> {
  label: string;
  help?: string | undefined;
  problem?: string | null | undefined;
  /** The name stands beside the field already; it is there for who listens. */
  labelHidden?: boolean;
  /** What is wrong stands elsewhere, beside the way to mend it. */
  invalid?: boolean;
  onText: (text: string) => void;
  ref?: Ref<HTMLInputElement>;
}

/** A labeled input; what is wrong stands right under it, in words, and what was typed stays. */
export function TextField({
  label,
  help,
  problem,
  labelHidden = false,
  invalid = false,
  onText,
  ...input
}: TextFieldProps) {
  const id = useId();
  const wrong = Boolean(problem);
  return (
    <Box w="100%" minW="0" position="relative">
      <FieldLabel htmlFor={id} {...(labelHidden && { srOnly: true })}>
        {label}
      </FieldLabel>
      <Typed
        id={id}
        autoComplete="off"
        aria-invalid={wrong || invalid || undefined}
        aria-describedby={wrong || help ? `${id}-said` : undefined}
        aria-errormessage={wrong ? `${id}-said` : undefined}
        onChange={(event) => onText(event.target.value)}
        {...input}
      />
      <ReadAloud>{wrong && <Wrong id={`${id}-said`}>{problem}</Wrong>}</ReadAloud>
      {!wrong && help && <Said id={`${id}-said`}>{help}</Said>}
    </Box>
  );
}
