import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { SlipView } from "../../api/types";
import { TextField } from "../../components/TextField";
import type { Fields } from "./useSlip";

interface QuickLineProps {
  read: (line: string) => Promise<SlipView>;
  onFields: (fields: Fields) => void;
}

/** The whole test as one typed line; Enter puts it into the fields. What is not understood stays to be mended. */
export function QuickLine({ read, onFields }: QuickLineProps) {
  const [line, setLine] = useState("");
  const [problems, setProblems] = useState<readonly string[]>([]);

  async function take() {
    try {
      const view = await read(line);
      onFields(Object.fromEntries(view.values.map((value) => [value.measure, value.typed])));
      setProblems(view.problems.map((problem) => problem.text));
      if (view.problems.length === 0) setLine("");
    } catch (error) {
      setProblems([error instanceof Error ? error.message : String(error)]);
    }
  }

  return (
    <Box>
      <TextField
        label="Quick line, then Enter"
        placeholder="fc 1.5 tc 2 ph 7.8 ta 110 82f"
        value={line}
        onText={setLine}
        onKeyDown={(event) => {
          if (event.key !== "Enter" || line.trim() === "") return;
          event.preventDefault();
          void take();
        }}
        help="Names and numbers, or bare numbers in the kit's order. Drops: 15d or 15x0.2."
      />
      {problems.map((problem) => (
        <Text key={problem} role="alert" fontSize="note" color="accent" fontWeight="600">
          {problem}
        </Text>
      ))}
    </Box>
  );
}
