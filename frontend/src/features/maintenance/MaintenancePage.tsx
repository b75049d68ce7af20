import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { useMaintenance } from "../../api/care";
import { maintenanceQuery, poolQuery } from "../../api/queries";
import type { DueItem, Maintenance } from "../../api/types";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { PoolHeader } from "../../components/PoolHeader";
import { Failed, Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { OwnTaskForm } from "../../forms/OwnTaskForm";
import { PressureForm } from "../../forms/PressureForm";
import { MaintenanceNav } from "./MaintenanceNav";
import { Rhythm } from "./Rhythm";
import { TaskRow } from "./TaskRow";

const EVENTS = [
  ["storm", "Storm or heavy rain"],
  ["heavy_use", "Many swimmers"],
  ["hot_spell", "Hot spell"],
  ["leaves", "Leaves came down"],
  ["power_cut", "Power cut"],
  ["flood", "Flood"],
  ["cover_on", "Cover put on"],
  ["cover_off", "Cover taken off"],
  ["filled", "Filled with fresh water"],
  ["plastered", "Newly plastered"],
] as const;

const GROUPS: readonly [DueItem["standing"], string][] = [
  ["overdue", "Late"],
  ["due", "Today"],
  ["soon", "Soon"],
  ["later", "Later"],
];

/** Everything that has a date at this pool, why, and what to do with it. */
export function MaintenancePage() {
  const { poolId = "" } = useParams();
  const found = useQuery(maintenanceQuery(poolId));
  const head = useQuery(poolQuery(poolId));
  const care = useMaintenance(poolId);
  return (
    <>
      <PoolHeader poolId={poolId} />
      <MaintenanceNav poolId={poolId} />
      {found.isPending && <Loading what="the care of this pool" />}
      {found.isError && <Failed error={found.error} again={() => void found.refetch()} />}
      {found.data && head.data && (
        <Grid
          templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 22rem" }}
          gap="5"
          alignItems="start"
        >
          <TheList data={found.data} poolId={poolId} care={care} />
          <Grid gap="5">
            <WhatHappened care={care} />
            <Card as="section" aria-label="A task of your own" data-noprint>
              <Heading as="h2" fontSize="lead" mb="2">
                A task of your own
              </Heading>
              <OwnTaskForm pools={[poolId]} button="Put it on the list" />
            </Card>
            <Procedures data={found.data} poolId={poolId} />
            <Rhythm head={head.data} care={found.data} />
          </Grid>
        </Grid>
      )}
    </>
  );
}

interface TheListProps {
  data: Maintenance;
  poolId: string;
  care: ReturnType<typeof useMaintenance>;
}

function TheList({ data, poolId, care }: TheListProps) {
  return (
    <Box>
      {GROUPS.map(([standing, title]) => {
        const items = data.items.filter((item) => item.standing === standing);
        if (items.length === 0) return null;
        return (
          <Card as="section" key={standing} mb="4" py="3">
            <Heading as="h2" fontSize="lead" mb="1">
              {title}
            </Heading>
            <Box as="ul" listStyleType="none" p="0" m="0">
              {items.map((item) => (
                <TaskRow key={item.task} item={item} poolId={poolId} care={care} />
              ))}
            </Box>
          </Card>
        );
      })}
      <Offers data={data} care={care} />
      {data.off.length > 0 && (
        <Text color="soft" fontSize="note">
          Off the list:{" "}
          {data.off.map((task) => (
            <SideButton key={task.key} mr="2" onClick={() => void care.interval(task.key, null)}>
              {task.title}: put it back
            </SideButton>
          ))}
        </Text>
      )}
    </Box>
  );
}

/** What the log suggests; nothing changes until it is taken. */
function Offers({ data, care }: { data: Maintenance; care: ReturnType<typeof useMaintenance> }) {
  if (data.offers.length === 0) return null;
  return (
    <Card as="section" mb="4">
      <Heading as="h2" fontSize="lead" mb="2">
        The log suggests
      </Heading>
      {data.offers.map((offer) => (
        <Flex key={offer.task} gap="3" align="center" justify="space-between" py="2" wrap="wrap">
          <Text flex="1" minW="14rem">
            {data.items.find(({ task }) => task === offer.task)?.title}: every {Number(offer.days.toFixed(1))}{" "}
            days. {offer.why}
          </Text>
          <SideButton
            disabled={care.goes(offer.task)}
            onClick={() => void care.interval(offer.task, String(offer.days))}
          >
            Take it
          </SideButton>
        </Flex>
      ))}
    </Card>
  );
}

function WhatHappened({ care }: { care: ReturnType<typeof useMaintenance> }) {
  return (
    <Card as="section">
      <Heading as="h2" fontSize="lead" mb="3">
        What happened
      </Heading>
      <Flex gap="2" wrap="wrap">
        {EVENTS.map(([kind, words]) => (
          <SideButton key={kind} disabled={care.goes(kind)} onClick={() => void care.event(kind, words)}>
            {words}
          </SideButton>
        ))}
      </Flex>
      <Box mt="3">
        <PressureForm care={care} label="Filter pressure" />
      </Box>
    </Card>
  );
}

function Procedures({ data, poolId }: { data: Maintenance; poolId: string }) {
  return (
    <Card as="section">
      <Heading as="h2" fontSize="lead" mb="2">
        Step by step
      </Heading>
      <Box as="ul" listStyleType="none" p="0" m="0">
        {data.procedures.map(({ key, title }) => (
          <Box as="li" key={key}>
            <PlainLink
              to={`/pools/${poolId}/care/do/${key}`}
              display="inline-flex"
              minH="40px"
              alignItems="center"
            >
              {title}
            </PlainLink>
          </Box>
        ))}
      </Box>
    </Card>
  );
}
