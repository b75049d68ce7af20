import { Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { sharingQuery } from "../../api/accountQueries";
import { client, take } from "../../api/client";
import { choicesQuery, poolQuery } from "../../api/queries";
import type { PoolHeaderData } from "../../api/types";
import { notify } from "../../components/notice";
import { PoolHeader } from "../../components/PoolHeader";
import { PoolLinks } from "../../components/PoolLinks";
import { Failed, Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { useKit } from "../../forms/kit";
import { useMe } from "../../lib/me";
import { personId } from "../../lib/person";
import { useStore } from "../../lib/store";
import { type Units, unitsStore } from "../../lib/units";
import { ArchiveCard } from "./ArchiveCard";
import { equipmentOf, type PoolForm, settingsOf, typedBasin } from "./form";
import { PoolFormView } from "./PoolFormView";
import { SharingCard } from "./SharingCard";
import { formOf } from "./storedForm";
import { requireBasin, useNewPool } from "./useNewPool";

/** Set up a pool on one page: all that can be told of it at once. */
export function AllAtOncePage() {
  const units = useStore(unitsStore);
  const choices = useQuery(choicesQuery());
  const kit = useNewPool(units, choices.data);
  return (
    <>
      <Heading as="h1" fontSize="title" mb="1">
        Set up a pool
      </Heading>
      <Text mb="4">
        All of it on one page. <PlainLink to="/pools/new">Step by step instead</PlainLink>
      </Text>
      <PoolFormView kit={kit} units={units} action="Set up this pool" />
    </>
  );
}

/** Change a pool: each change is a new entry in its journal, from now on; the old ones stay. */
export function ChangePoolPage() {
  const { poolId = "" } = useParams();
  const head = useQuery(poolQuery(poolId));
  const choices = useQuery(choicesQuery());
  const units = useStore(unitsStore);
  return (
    <>
      <PoolHeader poolId={poolId} />
      {head.isPending && <Loading what="the pool" />}
      {head.isError && <Failed error={head.error} again={() => void head.refetch()} />}
      {head.data && <ChangeForm key={`${poolId}${units}`} head={head.data} units={units} />}
      {/* Below the form, so not before it is there: it would be pushed away. */}
      {head.data && !choices.isPending && <Others poolId={poolId} settings={head.data.settings} />}
    </>
  );
}

/** Who else reads or works on the pool; and the way out of the lists. */
function Others({ poolId, settings }: { poolId: string; settings: PoolHeaderData["settings"] }) {
  const me = useMe();
  const zone = settings.time_zone;
  const sharing = useQuery(sharingQuery(poolId));
  const office = me?.role === "office";
  return (
    <Grid
      templateColumns={{ base: "minmax(0,1fr)", lg: "repeat(2, minmax(0,1fr))" }}
      columnGap="4"
      alignItems="start"
    >
      <PoolLinks poolId={poolId} zone={zone} kind="guest" />
      {office && <SharingCard poolId={poolId} zone={zone} />}
      {office && sharing.data?.own && <ArchiveCard poolId={poolId} name={settings.name} />}
    </Grid>
  );
}

function ChangeForm({ head, units }: { head: PoolHeaderData; units: Units }) {
  const queries = useQueryClient();
  const [start] = useState(() => formOf(head, units));
  const kit = useKit<PoolForm>({ start, send: save });

  async function save(form: PoolForm) {
    const path = { params: { path: { pool_id: head.id } } };
    const stamp = () => ({ id: crypto.randomUUID(), at: null, person_id: personId() });
    const changed = (pick: (from: PoolForm) => unknown) =>
      JSON.stringify(pick(form)) !== JSON.stringify(pick(start));
    if (changed(settingsOf)) {
      await take(
        client.POST("/api/v1/pools/{pool_id}/settings", {
          ...path,
          body: { ...stamp(), settings: settingsOf(form) },
        }),
      );
    }
    if (changed((from) => typedBasin(from, units))) {
      const basin = requireBasin(form, units);
      await take(client.POST("/api/v1/pools/{pool_id}/basin", { ...path, body: { ...stamp(), basin } }));
    }
    if (changed(equipmentOf)) {
      const equipment = equipmentOf(form);
      await take(
        client.POST("/api/v1/pools/{pool_id}/equipment", { ...path, body: { ...stamp(), equipment } }),
      );
    }
    await queries.invalidateQueries({ queryKey: ["pool", head.id] });
    await queries.invalidateQueries({ queryKey: ["pools"] });
    notify("Changed from now on. What was before stays in the log.");
  }

  return <PoolFormView poolId={head.id} kit={kit} units={units} action="Change from now on" />;
}
