import { Box, chakra, Grid, Text } from "@chakra-ui/react";
import type { Choices } from "../../api/types";
import { PlainLink } from "../../components/TextLink";
import type { Preset } from "./KindOfPool";
import { builtAs } from "./words";

const Row = chakra("button", {
  base: {
    textAlign: "left",
    minH: "64px",
    px: "4",
    py: "2.5",
    bg: "card",
    border: "1.5px solid",
    borderColor: "control",
    borderRadius: "10px",
    cursor: "pointer",
    _hover: { borderColor: "ink" },
  },
});

/** The kinds of pool, each with what it is then taken to be; one tap, and the next question comes. */
export function KindList({ choices, onPick }: { choices: Choices; onPick: (preset: Preset) => void }) {
  return (
    <>
      <Grid gap="2.5" templateColumns={{ base: "1fr", md: "1fr 1fr" }}>
        {choices.presets.map((preset) => (
          <Row key={preset.key} type="button" onClick={() => onPick(preset)}>
            <Text as="span" display="block" fontWeight="700">
              {preset.name}
            </Text>
            <Text as="span" display="block" fontSize="note" color="soft">
              {builtAs(preset)}
            </Text>
          </Row>
        ))}
      </Grid>
      <Text>
        None of these? <PlainLink to="/pools/new/all">All on one page</PlainLink>. Not sure yet?{" "}
        <PlainLink to="/practice">Practice on a pool that cannot be harmed</PlainLink>.
      </Text>
      <Box as="details">
        <Box as="summary" minH="44px" display="flex" alignItems="center" cursor="pointer" fontWeight="600">
          Bromine, biguanide, a spa, a public pool
        </Box>
        {choices.refused.map(({ key, name }) => (
          <Text key={key} mb="1">
            {name}
          </Text>
        ))}
        <Text>
          A public pool falls under the health code and usually needs a certified operator. They decide; this
          is a helper only. Say so on the one page, under Who swims here.
        </Text>
      </Box>
    </>
  );
}
