import { Box, Flex, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { LOOK, useMaintenance } from "../api/care";
import { todayQuery } from "../api/queries";
import type { DueItem } from "../api/types";
import { addressOf } from "../lib/addresses";
import { dayText } from "../lib/days";
import { useReadsOnly } from "../lib/me";
import { SideButton } from "./Button";
import { Card } from "./Card";
import { Failed, Loading } from "./States";
import { PlainLink } from "./TextLink";

const SHOWN = 5;
const ON_A_PHONE = 3;

export function lateText(item: DueItem): string {
  if (item.put_off_until) return `put off to ${dayText(item.put_off_until)}`;
  if (item.standing === "due") return "today";
  if (item.late_days === 1) return "since yesterday";
  if (item.late_days > 1) return `${item.late_days} days late`;
  return dayText(item.due_on);
}

/** Where an item is done: its own procedure, the test form, the plan. */
export function whereOf(item: DueItem, poolId: string): string | null {
  const station = item.station ?? "";
  if (item.procedure !== null && station !== "slip") return addressOf(poolId, `do/${item.procedure}`);
  return addressOf(poolId, station);
}

/** What is due now and soon, the most pressing first; a look in one tap. */
export function DueCard({ poolId }: { poolId: string }) {
  const today = useQuery(todayQuery(poolId));
  const care = useMaintenance(poolId);
  const readsOnly = useReadsOnly();
  if (today.isPending) return <Loading what="what is due" />;
  if (today.isError) return <Failed error={today.error} again={() => void today.refetch()} />;
  const { items, later, next_later } = today.data;
  const more = items.length - SHOWN;
  return (
    <Card as="section" aria-label="Due">
      <Flex justify="space-between" align="baseline" mb="2">
        <Text as="h2" fontSize="lead" fontWeight="700">
          Due
        </Text>
        {!readsOnly && (
          <Flex gap="4">
            <PlainLink to={`/pools/${poolId}/visit`} fontSize="note">
              as a visit
            </PlainLink>
            <PlainLink to={`/pools/${poolId}/care`} fontSize="note">
              {more > 0 ? `all, ${more} more` : "all of it"}
            </PlainLink>
          </Flex>
        )}
      </Flex>
      {items.length === 0 && (
        <Text color="soft">
          Nothing now{next_later !== null && `; the next is on ${dayText(next_later)}`}.
          {later === 0 && " Enter a test, and the schedule begins."}
        </Text>
      )}
      <Box as="ul" listStyleType="none" p="0" m="0">
        {items.slice(0, SHOWN).map((item, index) => (
          <DueLine key={item.task} item={item} poolId={poolId} care={care} onPhone={index < ON_A_PHONE} />
        ))}
      </Box>
      {!readsOnly && (
        <Flex gap="2" mt="3" wrap="wrap">
          <SideButton disabled={care.goes(LOOK)} onClick={() => void care.look()}>
            Clear, level right
          </SideButton>
          <SideButton asChild>
            <PlainLink to={`/pools/${poolId}/test`} color="ink" textDecoration="none">
              Something odd
            </PlainLink>
          </SideButton>
        </Flex>
      )}
    </Card>
  );
}

interface DueLineProps {
  item: DueItem;
  poolId: string;
  care: ReturnType<typeof useMaintenance>;
  onPhone: boolean;
}

function DueLine({ item, poolId, care, onPhone }: DueLineProps) {
  const readsOnly = useReadsOnly();
  const where = readsOnly ? null : whereOf(item, poolId);
  const late = item.standing === "overdue";
  return (
    <Flex
      as="li"
      gap="3"
      py="1.5"
      align="center"
      borderTop="1px solid"
      borderColor="hairline"
      display={{ base: onPhone ? "flex" : "none", lg: "flex" }}
    >
      <Box flex="1" minW="0">
        {where === null ? (
          <Text fontWeight="600">{item.title}</Text>
        ) : (
          <PlainLink to={where} color="ink" fontWeight="600">
            {item.title}
          </PlainLink>
        )}
        <Text fontSize="note" color={late ? "ink" : "soft"} fontWeight={late ? "600" : "400"}>
          {lateText(item)}
        </Text>
      </Box>
      {!readsOnly && ((item.days !== null && item.station === null) || item.station === "season") && (
        <SideButton
          px="3"
          flexShrink={0}
          disabled={care.goes(item.task)}
          aria-label={`Done: ${item.title}`}
          onClick={() => void care.done(item)}
        >
          Done
        </SideButton>
      )}
    </Flex>
  );
}
