import { Grid, Heading } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { equipmentQuery, poolQuery } from "../../api/queries";
import type { EquipmentView } from "../../api/types";
import { Card } from "../../components/Card";
import { Photos } from "../../components/Photos";
import { PoolHeader } from "../../components/PoolHeader";
import { Failed, Loading } from "../../components/States";
import { useStore } from "../../lib/store";
import { unitsStore } from "../../lib/units";
import { CellCard } from "./CellCard";
import { CirculationCard } from "./CirculationCard";
import { DeviceCard } from "./DeviceCard";
import { FaultTrees } from "./FaultTrees";
import { FilterCard } from "./FilterCard";
import { Machines } from "./Machines";
import { MaintenanceNav } from "./MaintenanceNav";
import { PlantForm } from "./PlantForm";

type Part = EquipmentView["trees"][number]["part"];

/** Cell, filter, pump, cleaner and heater: what they do, what the readings say about them. */
export function EquipmentPage() {
  const { poolId = "" } = useParams();
  const benches = useQuery(equipmentQuery(poolId));
  const head = useQuery(poolQuery(poolId));
  const units = useStore(unitsStore);
  const of = (part: Part) => benches.data?.trees.filter((tree) => tree.part === part) ?? [];
  return (
    <>
      <PoolHeader poolId={poolId} />
      <MaintenanceNav poolId={poolId} />
      {benches.isPending && <Loading what="the equipment" />}
      {benches.isError && <Failed error={benches.error} again={() => void benches.refetch()} />}
      {benches.data && head.data && (
        <Grid
          templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) minmax(0,1fr)" }}
          gap="5"
          alignItems="start"
        >
          {benches.data.cell !== null && (
            <CellCard cell={benches.data.cell} poolId={poolId} zone={head.data.settings.time_zone} />
          )}
          <FilterCard filter={benches.data.filter} zone={head.data.settings.time_zone} units={units}>
            <FaultTrees trees={of("filter")} poolId={poolId} />
          </FilterCard>
          <CirculationCard bench={benches.data.circulation}>
            <FaultTrees trees={of("pump")} poolId={poolId} />
          </CirculationCard>
          <Card as="section">
            <Heading as="h2" fontSize="lead">
              Cleaner and heater
            </Heading>
            <FaultTrees trees={[...of("cleaner"), ...of("heater")]} poolId={poolId} />
          </Card>
          <Machines view={benches.data} poolId={poolId} zone={head.data.settings.time_zone} />
          <Photos poolId={poolId} zone={head.data.settings.time_zone} shows="equipment" />
          <DeviceCard
            key={benches.data.device.address}
            device={benches.data.device}
            poolId={poolId}
            units={units}
          />
          <PlantForm poolId={poolId} units={units} hasCell={benches.data.cell !== null} />
        </Grid>
      )}
    </>
  );
}
