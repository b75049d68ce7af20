import { Box, chakra, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import type { Rescue, Severity } from "../../api/types";
import { MainButton } from "../../components/Button";
import { Card, Caution } from "../../components/Card";
import { PickOne } from "../../components/Pick";
import { PlainLink } from "../../components/TextLink";
import { SeverityDrawing } from "./SeverityDrawing";
import { spanText } from "./spans";

interface BeginProps {
  seen: Rescue;
  poolId: string;
  busy: boolean;
  onSeverity: (severity: Severity) => void;
  onRatio: (byRatio: boolean) => void;
  onBegin: () => void;
}

const Row = chakra("label", {
  base: {
    display: "flex",
    gap: "3",
    alignItems: "center",
    minH: "64px",
    px: "3",
    py: "2",
    border: "1.5px solid",
    borderColor: "control",
    borderRadius: "10px",
    cursor: "pointer",
    "&:has(input:checked)": { borderColor: "ink", boxShadow: "inset 0 0 0 1.5px {colors.ink}" },
    "&:has(input:focus-visible)": { outline: "3px solid {colors.rope}", outlineOffset: "2px" },
  },
});
const Hidden = chakra("input", { base: { position: "absolute", opacity: 0, w: "1px", h: "1px" } });

/** How bad it is, which school, and what it would take; begun with one button. */
export function BeginCard({ seen, poolId, busy, onSeverity, onRatio, onBegin }: BeginProps) {
  const { board } = seen;
  return (
    <Card as="section" aria-label="Begin a rescue">
      <Heading as="h2" fontSize="lead">
        How bad is it?
      </Heading>
      <Text color="soft" mb="3">
        Not sure what it is?{" "}
        <PlainLink to={`/pools/${poolId}/what-is-it`}>Tell it from its look-alikes first.</PlainLink>
      </Text>
      <Grid as="fieldset" border="0" p="0" m="0" gap="2" templateColumns={{ base: "1fr", md: "1fr 1fr" }}>
        <chakra.legend srOnly>How bad is it?</chakra.legend>
        {seen.severities.map((one) => (
          <Row key={one.severity}>
            <Hidden
              type="radio"
              name="severity"
              checked={seen.setting.severity === one.severity}
              onChange={() => onSeverity(one.severity)}
            />
            <SeverityDrawing severity={one.severity} />
            <Box>
              <Text fontWeight="650">
                {one.name}
                {one.severity === seen.suggested && (
                  <Text as="span" fontWeight="400" color="soft" fontSize="note">
                    {" "}
                    by the last look
                  </Text>
                )}
              </Text>
              <Text fontSize="note">{one.look}.</Text>
            </Box>
          </Row>
        ))}
      </Grid>
      <Box mt="4">
        <PickOne
          label="How high to shock: practitioners differ"
          options={[
            { value: "ratio", label: "By stabilizer" },
            { value: "fixed", label: "To 10" },
          ]}
          value={seen.setting.by_ratio ? "ratio" : "fixed"}
          onPick={(value) => onRatio(value === "ratio")}
        />
      </Box>
      <Caution mt="4" py="3">
        <Text fontWeight="650">{board.closed}</Text>
      </Caution>
      <Flex mt="4" gap="4" align="center" wrap="wrap">
        <MainButton onClick={onBegin} disabled={busy}>
          Begin the rescue
        </MainButton>
        <Text>
          Free chlorine to {board.level_mg_l.toFixed(0)}; clear {spanText(board.clear)}.
        </Text>
      </Flex>
    </Card>
  );
}
