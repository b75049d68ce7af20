import { Flex, Grid, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams, useSearchParams } from "react-router";
import { poolQuery, rescueQuery } from "../../api/queries";
import type { Rescue, Severity } from "../../api/types";
import { SideButton } from "../../components/Button";
import { Card, Caution } from "../../components/Card";
import { BeforeAndAfter, Photos } from "../../components/Photos";
import { PickOne } from "../../components/Pick";
import { PoolHeader } from "../../components/PoolHeader";
import { ShockWith } from "../../components/ShockWith";
import { Failed, Loading } from "../../components/States";
import { useStore } from "../../lib/store";
import { unitsStore } from "../../lib/units";
import { BeginCard } from "./BeginCard";
import { CausesCard } from "./CausesCard";
import { ClearBand } from "./ClearBand";
import { NowCard } from "./NowCard";
import { Signs } from "./Signs";
import { StageList } from "./StageList";
import { TallyCard } from "./TallyCard";
import { TreatOrDrain } from "./TreatOrDrain";
import { useRescue } from "./useRescue";

const SEVERITIES: readonly Severity[] = ["light", "green", "opaque", "mustard", "black"];

/** The rescue board: how bad, what is due now, the course, when it will be clear, what it takes. */
export function RescuePage() {
  const { poolId = "" } = useParams();
  const [search] = useSearchParams();
  const named = SEVERITIES.find((one) => one === search.get("severity")) ?? null;
  const [preview, setPreview] = useState<{ severity: Severity | null; byRatio: boolean }>({
    severity: named,
    byRatio: true,
  });
  const units = useStore(unitsStore);
  const head = useQuery(poolQuery(poolId));
  const rescue = useQuery(rescueQuery(poolId, preview, units));
  const { busy, set, end } = useRescue(poolId);
  const seen = rescue.data;
  const zone = head.data?.settings.time_zone ?? "UTC";
  return (
    <>
      <PoolHeader poolId={poolId} />
      {rescue.isPending && <Loading what="the rescue board" />}
      {rescue.isError && !seen && <Failed error={rescue.error} again={() => void rescue.refetch()} />}
      {seen && head.data && (
        <>
          {seen.open && (
            <Caution mb="5" py="3">
              <Text fontWeight="650">{seen.board.closed}</Text>
            </Caution>
          )}
          <Grid
            templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 27rem" }}
            gap="5"
            alignItems="start"
          >
            <Grid gap="5">
              {seen.open ? (
                <NowCard
                  seen={seen}
                  poolId={poolId}
                  units={units}
                  zone={zone}
                  filter={head.data.equipment.traits.filter}
                />
              ) : (
                <BeginCard
                  seen={seen}
                  poolId={poolId}
                  busy={busy}
                  onSeverity={(severity) => setPreview({ ...preview, severity })}
                  onRatio={(byRatio) => setPreview({ ...preview, byRatio })}
                  onBegin={() => void set(seen.setting, "The rescue has begun; the pool is closed.")}
                />
              )}
              <Card>
                <StageList board={seen.board} />
              </Card>
            </Grid>
            <Grid gap="5">
              <Card>
                <ClearBand board={seen.board} zone={zone} />
              </Card>
              {seen.open && (
                <Card>
                  <Signs board={seen.board} zone={zone} />
                </Card>
              )}
              <Card>
                <TallyCard seen={seen} />
              </Card>
              <Photos poolId={poolId} zone={zone} shows="rescue" title="How it looked">
                <BeforeAndAfter poolId={poolId} zone={zone} />
              </Photos>
            </Grid>
          </Grid>
          <TreatOrDrain
            seen={seen}
            poolId={poolId}
            busy={busy}
            onLimits={(drain_over_stabiliser, drain_over_calcium) =>
              void set({ ...seen.setting, drain_over_stabiliser, drain_over_calcium }, "The limits are set.")
            }
          />
          <CausesCard seen={seen} />
          {seen.open && <Strategies poolId={poolId} seen={seen} busy={busy} set={set} end={end} />}
        </>
      )}
    </>
  );
}

interface WaysProps extends Pick<ReturnType<typeof useRescue>, "busy" | "set" | "end"> {
  poolId: string;
  seen: Rescue;
}

/** The schools on which practitioners differ, to be changed on the way; and the end. */
function Strategies({ poolId, seen, busy, set, end }: WaysProps) {
  const { setting, board } = seen;
  return (
    <Card as="section" aria-label="How this rescue is done" mt="5" data-noprint>
      <Flex gap="5" wrap="wrap" align="end">
        <PickOne
          label="How bad"
          options={seen.severities.map(({ severity, name }) => ({ value: severity, label: name }))}
          value={setting.severity}
          onPick={(severity) => void set({ ...setting, severity }, "Planned anew.")}
        />
        <PickOne
          label="Shock"
          options={[
            { value: "ratio", label: "By stabilizer" },
            { value: "fixed", label: "To 10" },
          ]}
          value={setting.by_ratio ? "ratio" : "fixed"}
          onPick={(way) => void set({ ...setting, by_ratio: way === "ratio" }, "Planned anew.")}
        />
        <ShockWith
          poolId={poolId}
          use={setting.use ?? null}
          onPick={(use) => void set({ ...setting, use }, "Planned anew.")}
        />
        <PickOne
          label="pH before the shock"
          options={[
            { value: "lowered", label: "7.2 to 7.4" },
            { value: "raised", label: "7.8" },
          ]}
          value={board.ph_way}
          onPick={(ph_way) => void set({ ...setting, ph_way }, "Planned anew.")}
        />
        <PickOne
          label="What has died"
          options={[
            { value: "stir", label: "Stir and filter" },
            { value: "settle", label: "Settle, vacuum to waste" },
          ]}
          value={board.dead_way}
          onPick={(dead_way) => void set({ ...setting, dead_way }, "Planned anew.")}
        />
      </Flex>
      <Flex gap="3" mt="5" wrap="wrap">
        <SideButton
          disabled={busy || !seen.finished}
          onClick={() => void end("clear", "The rescue is over: clear.")}
        >
          It is clear: end the rescue
        </SideButton>
        <SideButton disabled={busy} onClick={() => void end("drained", "The rescue is over: drained.")}>
          It was drained
        </SideButton>
        <SideButton disabled={busy} onClick={() => void end("stopped", "The rescue is stopped.")}>
          Stop it
        </SideButton>
      </Flex>
      {!seen.finished && (
        <Text mt="2" fontSize="note" color="soft">
          It ends clear when all signs above are there.
        </Text>
      )}
    </Card>
  );
}
