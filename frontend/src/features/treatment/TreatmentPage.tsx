import { Box, Grid, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useLocation, useNavigate, useParams, useSearchParams } from "react-router";
import { offerQuery, poolQuery } from "../../api/queries";
import type { PlanRequest, Treatment, TreatmentStep } from "../../api/types";
import { Card, Caution } from "../../components/Card";
import { Photos } from "../../components/Photos";
import { PlanDrawing } from "../../components/PlanDrawing";
import { PoolHeader } from "../../components/PoolHeader";
import { Failed, Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { useReadsOnly } from "../../lib/me";
import { useStore } from "../../lib/store";
import { clock } from "../../lib/times";
import { type Units, unitsStore } from "../../lib/units";
import { useDebounced } from "../../lib/useDebounced";
import { BigSteps } from "./BigSteps";
import { LeavesCard } from "./LeavesCard";
import { PlanPicker } from "./PlanPicker";
import { PLANS } from "./plans";
import { SameOrAnother } from "./SameOrAnother";
import { SecondOpinion } from "./SecondOpinion";
import { StepNow } from "./StepNow";
import { StrategiesCard } from "./StrategiesCard";
import { TreatmentCard } from "./TreatmentCard";
import { useDue } from "./useDue";
import { useTreatment } from "./useTreatment";

const PLAIN: PlanRequest = { plan: "balance" };
const RESCUE: PlanRequest = { plan: "rescue" };

const BY_BUTTON = "big steps";

/** The plan that a link names, if it is one, and its product. */
function planNamed(search: URLSearchParams): PlanRequest | null {
  const found = PLANS.find(({ value }) => value === search.get("plan"));
  const use = search.get("use");
  return found === undefined ? null : { plan: found.value, ...(use === null ? {} : { use }) };
}

function isPlain(asked: PlanRequest): boolean {
  return (asked.plan ?? "balance") === "balance" && (asked.way ?? "usual") === "usual" && !asked.use;
}

/** The plan: offered, then started and ticked off step by step. */
export function TreatmentPage() {
  const { poolId = "" } = useParams();
  const units = useStore(unitsStore);
  const readsOnly = useReadsOnly();
  const head = useQuery(poolQuery(poolId));
  const sheet = useTreatment(poolId, units);
  const [search, setSearch] = useSearchParams();
  const navigate = useNavigate();
  const { state } = useLocation();
  const [picked, setAsked] = useState<PlanRequest | null>(() => planNamed(search));
  // While a rescue goes on, its sheet is the one that is meant.
  const asked = picked ?? (head.data?.treating ? RESCUE : PLAIN);
  const zone = head.data?.settings.time_zone ?? "UTC";
  const data = sheet.query.data;
  const offered = data?.id === null;
  const now = data ? stepNow(data) : undefined;
  const [atWork, setAtWork] = useState(false);
  const twiceLine = data?.steps.find(({ number }) => number === sheet.twice?.number);
  const common = { units, zone, poolId, busy: sheet.busy, onUndo: sheet.undo };

  // Opened here, closing goes back to here; opened by its address, there is nothing to go back to.
  const closeBig = () => {
    if (state === BY_BUTTON) void navigate(-1);
    else setSearch({}, { replace: true });
  };

  async function start(what: PlanRequest) {
    setAtWork(true);
    if (await sheet.start(what)) setAsked(null);
  }

  return (
    <>
      <PoolHeader poolId={poolId} />
      {sheet.query.isPending && <Loading what="the plan" />}
      {sheet.query.isError && !data && (
        <Failed error={sheet.query.error} again={() => void sheet.query.refetch()} />
      )}
      {sheet.trouble !== null && (
        <Text role="alert" color="accent" fontWeight="600" mb="4">
          {sheet.trouble.message}
        </Text>
      )}
      {twiceLine !== undefined && sheet.twice !== null && (
        <SameOrAnother
          line={twiceLine}
          amount={sheet.twice.amount}
          zone={zone}
          onSame={sheet.same}
          onAnother={() => void sheet.another()}
        />
      )}
      {asked.plan === "rescue" && !readsOnly && (
        <Text mb="3" data-noprint>
          <PlainLink to={`/pools/${poolId}/rescue`}>The rescue board</PlainLink>
        </Text>
      )}
      {data && now && !readsOnly && <DueLine step={now} isFirst={now === data.steps[0]} zone={zone} />}
      {data && now && search.has("big") && (
        <BigSteps
          sheet={data}
          current={now}
          zone={zone}
          busy={sheet.busy}
          onTick={(outcome) => sheet.tick(now, outcome)}
          onClose={closeBig}
        />
      )}
      {offered && !readsOnly && <PlanPicker poolId={poolId} asked={asked} change={setAsked} />}
      {data && offered && !isPlain(asked) && (
        <Offered asked={asked} {...common} onStart={() => void start(asked)} />
      )}
      {data && !(offered && !isPlain(asked)) && (
        <Grid
          templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 25rem" }}
          templateAreas={{ base: '"now" "list" "leaves"', lg: '"list now" "list leaves"' }}
          templateRows={{ lg: "auto 1fr" }}
          gap="5"
          alignItems="start"
        >
          <Box gridArea="now" _empty={{ display: "none" }}>
            {now && (
              <StepNow
                key={now.number}
                sheet={data}
                current={now}
                zone={zone}
                units={units}
                busy={sheet.busy}
                takesFocus={atWork}
                onBig={() => setSearch({ big: "1" }, { state: BY_BUTTON })}
                onTick={(outcome, amount) => {
                  setAtWork(true);
                  return sheet.tick(now, outcome, amount);
                }}
              />
            )}
            {offered && data.steps.length > 0 && <WhereToPour sheet={data} units={units} />}
          </Box>
          <Box gridArea="list" minW="0">
            <TreatmentCard
              sheet={data}
              asked={PLAIN}
              {...common}
              atHand={now?.number}
              onStart={() => void start(PLAIN)}
              onPutAway={() => void sheet.putAway()}
            />
          </Box>
          <Box gridArea="leaves" _empty={{ display: "none" }}>
            {data.steps.length > 0 && <LeavesCard poolId={poolId} left={data.unmet.length} />}
          </Box>
        </Grid>
      )}
      {now && data?.id && !readsOnly && (
        <Photos poolId={poolId} zone={zone} shows="step" about={data.id} title="Photos of this plan" />
      )}
      {offered && !readsOnly && (asked.plan ?? "balance") === "balance" && (
        <StrategiesCard
          poolId={poolId}
          units={units}
          chosen={{ way: asked.way ?? "usual", use: asked.use ?? null }}
          onChoose={(chosen) => setAsked({ plan: "balance", ...chosen })}
        />
      )}
      {data && !readsOnly && (
        <SecondOpinion
          poolId={poolId}
          units={units}
          {...(offered ? { onAdopt: (advice: string) => setAsked({ plan: "advice", advice }) } : {})}
        />
      )}
    </>
  );
}

/** Before a plan is started: the pool with the way along which is poured. */
function WhereToPour({ sheet, units }: { sheet: Treatment; units: Units }) {
  if (sheet.drawing === null || !sheet.steps.some(({ step }) => step.pour_path)) return null;
  return (
    <Card as="section" aria-label="Where to pour" display={{ base: "none", lg: "block" }} data-noprint>
      <Text as="h2" fontSize="lead" fontWeight="700" mb="2">
        Where to pour
      </Text>
      <PlanDrawing plan={sheet.drawing} units={units} show="pour" />
    </Card>
  );
}

function stepNow(sheet: Treatment): TreatmentStep | undefined {
  if (sheet.id === null) return undefined;
  return sheet.steps.find(({ step, ticked }) => step.kind !== "wait" && ticked === null);
}

interface OfferedProps extends Omit<Parameters<typeof TreatmentCard>[0], "sheet" | "onPutAway"> {
  asked: PlanRequest;
}

/** A plan other than the usual one, reckoned when it is asked for. */
function Offered(props: OfferedProps) {
  const asked = useDebounced(props.asked, 200);
  const found = useQuery(offerQuery(props.poolId, asked, props.units));
  if (found.isPending) return <Loading what="the plan" />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  return <TreatmentCard {...props} sheet={found.data} />;
}

/** One line, always there while a sheet runs, so that nothing jumps when a step falls due. */
interface DueLineProps {
  step: TreatmentStep;
  isFirst: boolean;
  zone: string;
}

function DueLine({ step, isFirst, zone }: DueLineProps) {
  const { due, missed } = useDue(step);
  return (
    <Box minH="3.5rem" mb="3" role="status" aria-live="assertive" data-noprint>
      {due && isFirst ? (
        <Text color="soft" pt="2">
          The first step, due since {clock(step.at, zone)}.
        </Text>
      ) : due ? (
        <Caution py="2" px="4" maxW="52rem">
          <Text fontWeight="700">
            {missed
              ? `Fell due at ${clock(step.at, zone)}.` // what it is stands right below
              : `Due now: ${step.step.title}${step.step.rounded_text ? `, ${step.step.rounded_text}` : ""}`}
          </Text>
        </Caution>
      ) : (
        <Text color="soft" pt="2">
          Next at {clock(step.at, zone)}: {step.step.title}. This page sounds when it is due; a locked phone
          needs <PlainLink to="/account">messages to it</PlainLink> or the calendar file.
        </Text>
      )}
    </Box>
  );
}
