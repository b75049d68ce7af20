import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useState } from "react";
import { client, take } from "../../api/client";
import type { Opinion } from "../../api/types";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { FormProblem, fieldsOf, KitForm, useKit } from "../../forms/kit";
import { rangeText, valueText } from "../../lib/measures";
import type { Units } from "../../lib/units";

/** What a shop, a label or a chart advised: what it would do, beside our own plan. */
interface SecondOpinionProps {
  poolId: string;
  units: Units;
  /** Make a sheet of the advice; left out while another sheet is open. */
  onAdopt?: (advice: string) => void;
}

const { Field } = fieldsOf<{ text: string }>();

export function SecondOpinion({ poolId, units, onAdopt }: SecondOpinionProps) {
  const [opinion, setOpinion] = useState<Opinion | null>(null);
  const kit = useKit<{ text: string }>({
    start: { text: "" },
    send: async ({ text }) =>
      setOpinion(
        await take(
          client.POST("/api/v1/pools/{pool_id}/second-opinion", {
            params: { path: { pool_id: poolId }, query: { metric: units === "metric" } },
            body: { text },
          }),
        ),
      ),
  });
  const busy = kit.form.formState.isSubmitting;
  return (
    <Card as="section" aria-label="Second opinion" maxW="52rem" mt="5" data-noprint>
      <Heading as="h2" fontSize="lead" mb="1">
        Second opinion
      </Heading>
      <Text color="soft" mb="3">
        Somebody told you what to add? See what it would do here before you buy it.
      </Text>
      <KitForm kit={kit}>
        <Flex gap="3" align="end" wrap="wrap">
          <Box flex="1" minW="16rem">
            <Field
              name="text"
              label="What was advised"
              placeholder={units === "us" ? "salt 40 lb, baking soda 2 lb" : "salt 20 kg, baking soda 1 kg"}
            />
          </Box>
          <SideButton type="submit" disabled={busy}>
            {busy ? "Reckoning …" : "Compare"}
          </SideButton>
        </Flex>
        <FormProblem shown={["text"]} />
      </KitForm>
      {opinion && <Compared opinion={opinion} />}
      {opinion && opinion.advice.length > 0 && onAdopt && (
        <Flex mt="4" gap="3" align="center" wrap="wrap">
          <SideButton onClick={() => onAdopt(kit.form.getValues("text"))}>
            Make a plan of their advice
          </SideButton>
          <Text fontSize="note" color="soft">
            With our order, waits, limits and cautions. Our own plan stands above as it is.
          </Text>
        </Flex>
      )}
    </Card>
  );
}

function Compared({ opinion }: { opinion: Opinion }) {
  return (
    <Box mt="4" aria-live="polite">
      {opinion.unread.map((piece) => (
        <Text key={piece.typed} color="accent" fontWeight="600">
          {piece.text}
        </Text>
      ))}
      {opinion.advice.length > 0 && (
        <>
          <Text>
            <Text as="span" fontWeight="650">
              Read as:
            </Text>{" "}
            {opinion.advice.map((one) => one.text).join(", ")}.
          </Text>
          {opinion.findings.map((finding) => (
            <Text key={finding.text} mt="1" color="accent" fontWeight="600">
              {finding.text}
            </Text>
          ))}
          <Box overflowX="auto" mt="3">
            <Box as="table" w="100%">
              <Box as="thead" color="soft" fontSize="note" textAlign="left">
                <tr>
                  <th scope="col">Measure, ppm</th>
                  <th scope="col">Now</th>
                  <th scope="col">Their way</th>
                  <th scope="col">Our plan</th>
                  <th scope="col">Range</th>
                </tr>
              </Box>
              <tbody>
                {opinion.rows.map((row) => (
                  <Box as="tr" key={row.measure} borderTop="1px solid" borderColor="hairline">
                    <th scope="row">
                      <Box textAlign="left" fontWeight="600" py="2" pr="3">
                        {row.name}
                      </Box>
                    </th>
                    <td>{shown(row, row.now)}</td>
                    <Box
                      as="td"
                      fontWeight={outside(row, row.theirs) ? "700" : "400"}
                      color={outside(row, row.theirs) ? "accent" : "ink"}
                    >
                      {shown(row, row.theirs)}
                      {outside(row, row.theirs) && ` ${outside(row, row.theirs)}`}
                    </Box>
                    <td>{shown(row, row.ours)}</td>
                    <Box as="td" color="soft">
                      {rangeText(row.measure, row.low, row.high)}
                    </Box>
                  </Box>
                ))}
              </tbody>
            </Box>
          </Box>
        </>
      )}
    </Box>
  );
}

type Row = Opinion["rows"][number];

function shown(row: Row, value: number | null): string {
  if (value === null) return "not known";
  return valueText(row.measure, value);
}

function outside(row: Row, value: number | null): string {
  if (value === null) return "";
  if (row.high !== null && value > row.high) return "(high)";
  return row.low !== null && value < row.low ? "(low)" : "";
}
