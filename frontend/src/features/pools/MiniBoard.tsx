import { Box, Grid } from "@chakra-ui/react";
import type { LaneMark, Measure } from "../../api/types";
import { percent } from "../../components/gaugeScale";
import { nameOf } from "../../lib/measures";

/** The trade's short names, as the heads of columns. */
const SHORT: Partial<Record<Measure, string>> = {
  free_chlorine: "FC",
  combined_chlorine: "CC",
  ph: "pH",
  total_alkalinity: "TA",
  calcium_hardness: "CH",
  cyanuric_acid: "CYA",
  salt: "Salt",
};
export const IN_MINIATURE = Object.keys(SHORT) as Measure[];
const COLUMNS = `repeat(${IN_MINIATURE.length}, minmax(0, 1fr))`;

/** The heads of the ticks. */
export function MiniHeads() {
  return (
    <Grid
      templateColumns={COLUMNS}
      gap="1"
      color="soft"
      fontSize="note"
      textAlign="center"
      aria-hidden="true"
    >
      {IN_MINIATURE.map((measure) => (
        <span key={measure}>{SHORT[measure]}</span>
      ))}
    </Grid>
  );
}

function inWords(marks: readonly LaneMark[]): string {
  const off = marks.filter(({ code }) => code === "low" || code === "high");
  if (marks.every(({ at }) => at === null)) return "Not tested";
  return off.length === 0
    ? "All between the ropes"
    : off.map(({ measure, code }) => `${nameOf(measure)} ${code}`).join(", ");
}

/** One tick for each measure against its band: what has drifted is seen before a name is read. */
export function MiniBoard({ marks, labels = false }: { marks: readonly LaneMark[]; labels?: boolean }) {
  return (
    <Grid templateColumns={COLUMNS} gap="1" role="img" aria-label={inWords(marks)}>
      {IN_MINIATURE.map((measure) => (
        <Box key={measure} textAlign="center">
          <Tick mark={marks.find((one) => one.measure === measure)} />
          {labels && (
            <Box color="soft" fontSize="note" lineHeight="1.2" aria-hidden="true">
              {SHORT[measure]}
            </Box>
          )}
        </Box>
      ))}
    </Grid>
  );
}

function Tick({ mark }: { mark: LaneMark | undefined }) {
  const at = mark?.at ?? null;
  const off = mark?.code === "low" || mark?.code === "high";
  return (
    <Box position="relative" h="36px" overflow="hidden">
      <Box
        position="absolute"
        top="0"
        bottom="0"
        left={percent(0)}
        right={`calc(100% - ${percent(1)})`}
        bg="band"
        borderX="1px solid"
        borderColor="rope"
      />
      {at === null ? (
        <Box position="absolute" top="17px" left="calc(50% - 4px)" w="8px" h="2px" bg="control" />
      ) : (
        <Box
          position="absolute"
          top={off ? "7px" : "9px"}
          left={percent(at.position)}
          ml="-3.5px"
          w="7px"
          h={off ? "22px" : "18px"}
          borderRadius="3px"
          bg={off ? "accent" : "ink"}
        />
      )}
    </Box>
  );
}
