import { Box, Grid, Heading, Text } from "@chakra-ui/react";
import type { RescueBoard } from "../../api/types";
import { dayName } from "../../lib/times";

/** Yes, not yet, not known: by a word and a mark of its own shape. */
function standing(met: boolean | null): { word: string; mark: string } {
  if (met === null) return { word: "not known", mark: "?" };
  return met ? { word: "yes", mark: "✓" } : { word: "not yet", mark: "–" };
}

/** What must hold at the end, and the nights so far. */
export function Signs({ board, zone }: { board: RescueBoard; zone: string }) {
  return (
    <Box as="section" aria-label="Signs of the end">
      <Heading as="h2" fontSize="lead" mb="2">
        It is over when
      </Heading>
      <Box as="ul" listStyleType="none" p="0" m="0">
        {board.criteria.map((one) => {
          const { word, mark } = standing(one.met);
          return (
            <Grid as="li" key={one.key} templateColumns="1.25rem minmax(0,1fr)" columnGap="2" py="1">
              <Text fontWeight="700" aria-hidden="true">
                {mark}
              </Text>
              <Text>
                {one.title}:{" "}
                <Text as="span" fontWeight="650">
                  {word}
                </Text>
                <Text as="span" color="soft" fontSize="note">
                  . {one.text}
                </Text>
              </Text>
            </Grid>
          );
        })}
      </Box>
      {board.nights.length > 0 && (
        <Box as="table" mt="3" fontSize="note" w="100%" aria-label="Nights">
          <thead>
            <tr>
              {["Night to", "Evening", "Morning", "Lost"].map((name, column) => (
                <Box as="th" key={name} textAlign={column ? "right" : "left"} fontWeight="600" color="soft">
                  {name}
                </Box>
              ))}
            </tr>
          </thead>
          <tbody>
            {board.nights.slice(-5).map((night) => (
              <Box as="tr" key={night.morning_at} borderTop="1px solid" borderColor="hairline">
                <td>{dayName(night.morning_at, zone)}</td>
                {[night.evening_mg_l, night.morning_mg_l, night.lost_mg_l].map((value, column) => (
                  <Box
                    as="td"
                    key={column}
                    textAlign="right"
                    fontVariantNumeric="tabular-nums"
                    fontWeight={column === 2 ? "650" : "400"}
                  >
                    {value.toFixed(1)}
                  </Box>
                ))}
              </Box>
            ))}
          </tbody>
        </Box>
      )}
    </Box>
  );
}
