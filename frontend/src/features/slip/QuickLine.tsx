import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { SlipView } from "../../api/types";
import { TextField } from "../../components/TextField";
import type { Fields } from "./useSlip";

interface QuickLineProps {
  read: (line: string) => Promise<SlipView>;
  onFields: (fields: Fields) => void;
  onState: (state: LineState) => void;
}

/** Whether something stands in the line that is not in the fields yet. */
export type LineState = "empty" | "typed" | "reading";

/** The whole test as one typed line; Enter puts it into the fields. What is not understood stays to be mended. */
export function QuickLine({ read, onFields, onState }: QuickLineProps) {
  const [line, setLine] = useState("");
  const [problems, setProblems] = useState<readonly string[]>([]);

  function typed(text: string) {
    setLine(text);
    onState(text.trim() === "" ? "empty" : "typed");
  }

  async function take() {
    onState("reading");
    try {
      const view = await read(line);
      onFields(Object.fromEntries(view.values.map((value) => [value.measure, value.typed])));
      setProblems(view.problems.map((problem) => problem.text));
      typed(view.problems.length === 0 ? "" : line);
    } catch (error) {
      onState("typed");
      setProblems([error instanceof Error ? error.message : String(error)]);
    }
  }

  return (
    <Box>
      <TextField
        label="Quick line, then Enter"
        placeholder="fc 1.5 tc 2 ph 7.8 ta 110 82f"
        value={line}
        onText={typed}
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
