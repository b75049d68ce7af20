import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { LineProblem, TestFormView } from "../../api/types";
import { SideButton } from "../../components/Button";
import { TextField } from "../../components/TextField";
import type { Fields } from "./useTestForm";

interface QuickLineProps {
  read: (line: string) => Promise<TestFormView>;
  onFields: (fields: Fields) => void;
  onState: (state: LineState) => void;
  /** All of the line stands in the fields. */
  onDone: () => void;
}

/** Where there is a keyboard one types at once; a phone's keyboard would cover the look. */
const HAS_KEYBOARD = window.matchMedia("(pointer: fine)").matches;

/** Whether something stands in the line that is not in the fields yet. */
export type LineState = "empty" | "typed" | "reading";

/** The whole test as one typed line; Enter puts it into the fields. What is not understood stays to be mended. */
export function QuickLine({ read, onFields, onState, onDone }: QuickLineProps) {
  const [line, setLine] = useState("");
  const [problems, setProblems] = useState<readonly LineProblem[]>([]);

  function typed(text: string) {
    setLine(text);
    onState(text.trim() === "" ? "empty" : "typed");
  }

  async function take() {
    onState("reading");
    try {
      const view = await read(line);
      onFields(Object.fromEntries(view.values.map((value) => [value.measure, value.typed])));
      setProblems(view.problems);
      if (view.problems.length === 0) onDone();
      typed(view.problems.length === 0 ? "" : line);
    } catch (error) {
      onState("typed");
      setProblems([asProblem(error)]);
    }
  }

  /** Put the word that was meant in the place of the one that was typed. */
  function mend(problem: LineProblem) {
    const { position, piece, suggestion } = problem;
    typed(line.slice(0, position) + suggestion + line.slice(position + piece.length));
    setProblems(problems.filter((other) => other !== problem));
  }

  return (
    <Box>
      <TextField
        label="Quick line, then Enter"
        labelHidden
        invalid={problems.length > 0}
        autoFocus={HAS_KEYBOARD}
        placeholder="fc 1.5 ph 7.8 ta 110"
        value={line}
        onText={typed}
        onKeyDown={(event) => {
          if (event.key !== "Enter" || line.trim() === "") return;
          event.preventDefault();
          void take();
        }}
        help={
          HAS_KEYBOARD
            ? "Names and numbers, or bare numbers in the kit's order. Drops: 15d or 15x0.2."
            : undefined
        }
      />
      {problems.map((problem) => (
        <Flex key={`${problem.position}${problem.text}`} gap="3" align="center" wrap="wrap" mt="1">
          <Text role="alert" fontSize="note" color="accent" fontWeight="600">
            {problem.text}
          </Text>
          {problem.suggestion !== null && (
            <SideButton onClick={() => mend(problem)}>Use “{problem.suggestion}”</SideButton>
          )}
        </Flex>
      ))}
    </Box>
  );
}

function asProblem(error: unknown): LineProblem {
  const text = error instanceof Error ? error.message : String(error);
  return { position: 0, piece: "", text, measure: null, suggestion: null };
}
