import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import { useVisit, type Visit, type VisitGroup, type VisitKind, visitQuery, WHOLE } from "../../api/visit";
import { MainButton } from "../../components/Button";
import { Card, Caution } from "../../components/Card";
import { Photos } from "../../components/Photos";
import { PickOne } from "../../components/Pick";
import { PoolHeader } from "../../components/PoolHeader";
import { Failed, Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { fieldsOf, KitForm, useKit } from "../../forms/kit";
import { clock } from "../../lib/times";
import { visitStore } from "../../lib/visit";
import { VisitGroupCard } from "./VisitGroupCard";

const KINDS: readonly { value: VisitKind; label: string }[] = [
  { value: "hour", label: "Weekly hour" },
  { value: "stop", label: "Technician’s stop" },
  { value: "storm", label: "After a storm" },
  { value: "first", label: "First visit" },
  { value: "season", label: "Opening or closing" },
];
const GROUPS: readonly { group: VisitGroup; title: string }[] = [
  { group: "look", title: "Look" },
  { group: "season", title: "Opening or closing" },
  { group: "test", title: "Test" },
  { group: "equipment", title: "Equipment" },
  { group: "cleaning", title: "Cleaning" },
  { group: "chemicals", title: "Chemicals" },
];

/** The visit as one list in its order, chemicals last: begun, ticked, ended; on whatever device. */
export function VisitPage() {
  const { poolId = "" } = useParams();
  const [search] = useSearchParams();
  const named = KINDS.find(({ value }) => value === search.get("kind"))?.value ?? null;
  const [kind, setKind] = useState<VisitKind | null>(named);
  const found = useQuery(visitQuery(poolId, kind));
  const visit = useVisit(poolId);
  const seen = found.data;
  const goesOn = seen ? seen.entry_id !== null : null;
  useEffect(() => {
    document.title = "Visit · Kumpan";
    if (goesOn) visitStore.set(poolId);
    else if (goesOn === false && visitStore.get() === poolId) visitStore.set("");
  }, [poolId, goesOn]);
  return (
    <>
      <PoolHeader poolId={poolId} />
      {found.isPending && <Loading what="the visit" />}
      {found.isError && !seen && <Failed error={found.error} again={() => void found.refetch()} />}
      {seen && !goesOn && (
        <Box mb="4">
          <Heading as="h2" fontSize="title" mb="3">
            A visit
          </Heading>
          <PickOne label="What for" options={KINDS} value={seen.kind} onPick={setKind} />
          <Flex mt="4" gap="4" align="center" wrap="wrap">
            <MainButton disabled={visit.goes(WHOLE)} onClick={() => void visit.begin(seen.kind)}>
              Begin
            </MainButton>
            <Text color="soft">{whatIsOn(seen)}</Text>
          </Flex>
        </Box>
      )}
      {seen && goesOn && (
        <Heading as="h2" fontSize="title" mb="3">
          {KINDS.find(({ value }) => value === seen.kind)?.label}
          <Text as="span" fontSize="note" color="soft" fontWeight="400">
            {" "}
            since {clock(seen.begun_at ?? "", seen.zone)}
          </Text>
        </Heading>
      )}
      {seen && <Groups seen={seen} poolId={poolId} visit={visit} />}
      {seen && goesOn && (
        <Photos poolId={poolId} zone={seen.zone} shows="visit" about={seen.entry_id ?? ""} />
      )}
      {seen && goesOn && <End seen={seen} poolId={poolId} visit={visit} />}
    </>
  );
}

function whatIsOn({ kind, lines }: Visit): string {
  if (kind === "season" && !lines.some(({ group }) => group === "season"))
    return "No list of an opening or closing goes on; it is made under Season.";
  const count = lines.length === 1 ? "1 line" : `${lines.length} lines`;
  const order = lines.some(({ group }) => group === "chemicals") ? ", chemicals last" : "";
  return `${count}${order}. What is not due today is not on it.`;
}

interface Props {
  seen: Visit;
  poolId: string;
  visit: ReturnType<typeof useVisit>;
}

function Groups({ seen, poolId, visit }: Props) {
  return (
    <Grid gap="4" maxW="48rem">
      {GROUPS.map(({ group, title }) => {
        const lines = seen.lines.filter((line) => line.group === group);
        if (lines.length === 0) return null;
        return (
          <VisitGroupCard
            key={group}
            title={title}
            lines={lines}
            poolId={poolId}
            visit={visit}
            goesOn={seen.entry_id !== null}
            zone={seen.zone}
            locked={group === "chemicals" && seen.entry_id !== null && !seen.tested}
          />
        );
      })}
    </Grid>
  );
}

interface Ending {
  note: string;
}
const ending = fieldsOf<Ending>();

function End({ seen, poolId, visit }: Props) {
  const navigate = useNavigate();
  const open = seen.lines.filter(({ mark, key }) => mark === "open" && !visit.isTicked(key));
  const kit = useKit<Ending>({
    start: { note: "" },
    send: async ({ note }) => {
      if (!(await visit.end(note))) return;
      visitStore.set("");
      void navigate(`/pools/${poolId}/report`);
    },
  });
  return (
    <Card as="section" aria-label="End of the visit" mt="4" maxW="48rem">
      {open.length > 0 && (
        <Caution mb="3" p="3">
          <Text>Still open: {open.map(({ title }) => title.toLowerCase()).join(", ")}.</Text>
        </Caution>
      )}
      <KitForm kit={kit}>
        <ending.Field name="note" label="A note to the owner, if there is something to say" />
        <Flex mt="3" gap="4" align="center" wrap="wrap">
          <MainButton type="submit" disabled={visit.goes(WHOLE)}>
            End the visit
          </MainButton>
          <PlainLink to={`/pools/${poolId}/notice`}>No-swim notice</PlainLink>
        </Flex>
      </KitForm>
    </Card>
  );
}
