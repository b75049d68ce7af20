import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type FairView, fairQuery } from "../../api/firm";
import { MainButton, SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { Failed, Loading } from "../../components/States";
import { useStore } from "../../lib/store";
import { hoursText } from "../../lib/times";
import { distanceText, unitsStore } from "../../lib/units";
import type { useFirm } from "./useFirm";

const DAYS = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"] as const;

/** The same pools on days of equal work, asked for since it is reckoned; taken as a whole or not at all. */
export function FairCard({ firm }: { firm: ReturnType<typeof useFirm> }) {
  const [open, setOpen] = useState(false);
  const found = useQuery({ ...fairQuery(), enabled: open });
  return (
    <Card as="section" aria-label="Fairer days">
      <Heading as="h2" fontSize="lead" mb="2">
        Fairer days
      </Heading>
      <Text color="soft" mb="3">
        The same pools and the same days of driving, with as much work on each and fewer miles. Customers keep
        their day where it can be.
      </Text>
      {!open && <SideButton onClick={() => setOpen(true)}>Suggest</SideButton>}
      {open && found.isPending && <Loading what="fairer days" />}
      {open && found.isError && <Failed error={found.error} again={() => void found.refetch()} />}
      {open && found.data && (
        <Suggested
          view={found.data}
          onTake={() =>
            void firm
              .takeFair()
              .then(() => setOpen(false))
              .catch((error: unknown) => notify(error instanceof Error ? error.message : String(error)))
          }
          onLeave={() => setOpen(false)}
        />
      )}
    </Card>
  );
}

function Suggested({ view, onTake, onLeave }: { view: FairView; onTake: () => void; onLeave: () => void }) {
  const units = useStore(unitsStore);
  const rows = [
    [
      "Longest day",
      hoursText(Math.round(view.before.longest_min)),
      hoursText(Math.round(view.after.longest_min)),
    ],
    [
      "Shortest day",
      hoursText(Math.round(view.before.shortest_min)),
      hoursText(Math.round(view.after.shortest_min)),
    ],
    ["A week’s way", distanceText(view.before.km, units), distanceText(view.after.km, units)],
  ] as const;
  return (
    <>
      <Box as="table" w="100%" aria-label="Now and as suggested">
        <thead>
          <tr>
            <td />
            <Box as="th" textAlign="right" fontWeight="400" color="soft">
              now
            </Box>
            <Box as="th" textAlign="right" fontWeight="400" color="soft">
              suggested
            </Box>
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, before, after]) => (
            <tr key={name}>
              <Box as="th" textAlign="left" fontWeight="400">
                {name}
              </Box>
              <Box as="td" textAlign="right">
                {before}
              </Box>
              <Box as="td" textAlign="right" fontWeight="650">
                {after}
              </Box>
            </tr>
          ))}
        </tbody>
      </Box>
      {view.rounds.map((round) => (
        <Box key={`${round.technician}${round.weekday}`} mt="3">
          <Text fontWeight="650">
            {DAYS[round.weekday]}, {round.name}
          </Text>
          <Text fontSize="note" color="soft">
            {round.pools.join(", ") || "no stops"}
          </Text>
        </Box>
      ))}
      <Flex gap="3" mt="4" wrap="wrap">
        <MainButton onClick={onTake}>Take these days</MainButton>
        <SideButton onClick={onLeave}>Leave as it is</SideButton>
      </Flex>
    </>
  );
}
