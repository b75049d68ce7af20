import { Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { equipmentQuery, poolQuery } from "../../api/queries";
import { PoolHeader } from "../../components/PoolHeader";
import { Failed, Loading } from "../../components/States";
import { useStore } from "../../lib/store";
import { unitsStore } from "../../lib/units";
import { CellCard } from "./CellCard";
import { CirculationCard } from "./CirculationCard";
import { DeviceCard } from "./DeviceCard";
import { FilterCard } from "./FilterCard";
import { MaintenanceNav } from "./MaintenanceNav";
import { PlantForm } from "./PlantForm";

/** Cell, filter and pump: what they do, what the readings say about them. */
export function EquipmentPage() {
  const { poolId = "" } = useParams();
  const benches = useQuery(equipmentQuery(poolId));
  const head = useQuery(poolQuery(poolId));
  const units = useStore(unitsStore);
  return (
    <>
      <PoolHeader poolId={poolId} />
      <MaintenanceNav poolId={poolId} />
      {benches.isPending && <Loading what="the benches" />}
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
          <FilterCard filter={benches.data.filter} zone={head.data.settings.time_zone} units={units} />
          <CirculationCard bench={benches.data.circulation} />
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
