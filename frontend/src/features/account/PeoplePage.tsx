import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { auditQuery, membersQuery } from "../../api/accountQueries";
import { client, take } from "../../api/client";
import { poolsQuery } from "../../api/queries";
import type { Member } from "../../api/types";
import { attempt } from "../../components/attempt";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { PickMany } from "../../components/Pick";
import { SelectField } from "../../components/SelectField";
import { ShownOnce } from "../../components/ShownOnce";
import { Failed, Loading } from "../../components/States";
import { TextField } from "../../components/TextField";
import { FormProblem, fieldsOf, KitForm, useKit } from "../../forms/kit";
import { useMe } from "../../lib/me";
import { clock, dayName } from "../../lib/times";
import { Part } from "./AccountPage";
import { MarkOnPapers } from "./MarkOnPapers";
import { Outbox } from "./Outbox";
import { Programs } from "./Programs";
import { ROLES } from "./roles";
import { Send } from "./SignInPage";

const { Field } = fieldsOf<{ name: string }>();
const PICKED = (["office", "technician", "owner"] as const).map((value) => ({
  value,
  label: ROLES[value],
}));

/** The office's page: who is here, in which role, with which pools; invitations; who did what. */
export function PeoplePage() {
  const members = useQuery(membersQuery());
  useEffect(() => {
    document.title = "People · Kumpan";
  }, []);
  if (members.isPending) return <Loading what="the people" />;
  if (members.isError) return <Failed error={members.error} again={() => void members.refetch()} />;
  return (
    <Grid
      gap="4"
      templateColumns={{ base: "minmax(0,1fr)", lg: "repeat(2, minmax(0,1fr))" }}
      alignItems="start"
    >
      <Heading as="h1" fontSize="title" gridColumn="1 / -1">
        People
      </Heading>
      {members.data.map((member) => (
        <MemberCard key={member.id} member={member} />
      ))}
      <AddPerson />
      <WorkspaceName />
      <MarkOnPapers />
      <Programs />
      <Outbox />
      <Audit />
    </Grid>
  );
}

function MemberCard({ member }: { member: Member }) {
  const queries = useQueryClient();
  const pools = useQuery(poolsQuery());
  const [link, setLink] = useState<string | null>(null);
  const [leaving, setLeaving] = useState(false);
  const [address, setAddress] = useState("");
  const path = { params: { path: { person_id: member.id } } };
  const names = new Map(pools.data?.pools.map(({ id, settings }) => [settings.name, id]));
  const given = [...names].filter(([, id]) => member.pools.includes(id)).map(([name]) => name);

  const run = (work: Promise<unknown>) =>
    attempt(async () => {
      await work;
      await queries.invalidateQueries({ queryKey: ["members"] });
    });
  const setRole = (role: Member["role"], ids: string[]) =>
    run(take(client.POST("/api/v1/members/{person_id}/role", { ...path, body: { role, pools: ids } })));
  const end = (erase: boolean) =>
    run(take(client.POST("/api/v1/members/{person_id}/end", { ...path, body: { erase } })));
  const invite = (reset: boolean) =>
    attempt(async () => {
      const made = await take(
        client.POST("/api/v1/members/{person_id}/invitation", { ...path, body: { reset, address } }),
      );
      if (address !== "") notify(`It is on its way to ${address}.`);
      setLink(window.location.origin + made.path);
    });
  const toggle = (name: string) => {
    const id = names.get(name);
    if (id === undefined) return;
    const has = member.pools.includes(id);
    void setRole(member.role, has ? member.pools.filter((one) => one !== id) : [...member.pools, id]);
  };

  if (member.ended_at !== null)
    return (
      <Card aria-label={member.name}>
        <Flex justify="space-between" align="center" gap="3" wrap="wrap">
          <Text color="soft">{member.name}, left. What they did stays in the logs.</Text>
          <SideButton onClick={() => void end(true)}>Erase the name</SideButton>
        </Flex>
      </Card>
    );
  return (
    <Part title={member.name}>
      <Grid gap="3">
        <SelectField
          label="Role"
          value={member.role}
          options={PICKED}
          onPick={(role) => void setRole(role as Member["role"], [...member.pools])}
        />
        {member.role !== "office" && names.size > 0 && (
          <PickMany
            label={member.role === "owner" ? "Pools" : "Pools beside the rounds"}
            options={[...names.keys()]}
            values={given}
            onToggle={toggle}
          />
        )}
        <Text color="soft">
          {member.login === null ? "Cannot sign in yet." : `Signs in as ${member.login}.`}
        </Text>
        <TextField
          label="Send the link by mail to (or pass it on yourself)"
          type="email"
          value={address}
          onText={setAddress}
        />
        <Flex gap="3" wrap="wrap">
          <SideButton onClick={() => void invite(member.login !== null)}>
            {member.login === null ? "Make an invitation" : "Make a link for a new password"}
          </SideButton>
          {!leaving && <SideButton onClick={() => setLeaving(true)}>{member.name} leaves …</SideButton>}
        </Flex>
        {leaving && (
          <Box role="status">
            <Text mb="2">
              No way in any more, on no device and by no token. What they did stays in the logs.
            </Text>
            <Flex gap="3" wrap="wrap">
              <SideButton onClick={() => void end(false)}>Yes, {member.name} leaves</SideButton>
              <SideButton onClick={() => setLeaving(false)}>No</SideButton>
            </Flex>
          </Box>
        )}
        {link !== null && <ShownOnce say="Pass this on; it opens once:" secret={link} testId="invitation" />}
      </Grid>
    </Part>
  );
}

function AddPerson() {
  const queries = useQueryClient();
  const kit = useKit<{ name: string }>({ start: { name: "" }, send });

  async function send({ name }: { name: string }) {
    await take(client.POST("/api/v1/people", { body: { id: crypto.randomUUID(), name, initials: "" } }));
    kit.form.reset();
    await queries.invalidateQueries({ queryKey: ["members"] });
    await queries.invalidateQueries({ queryKey: ["people"] });
  }

  return (
    <Part title="Somebody new">
      <KitForm kit={kit}>
        <Grid gap="4">
          <Field name="name" label="Name, as the log shall show it" />
          <FormProblem shown={["name"]} />
          <Send action="Add" />
        </Grid>
      </KitForm>
    </Part>
  );
}

/** What others read of us where a pool is shared. */
function WorkspaceName() {
  const queries = useQueryClient();
  const me = useMe();
  const kit = useKit<{ name: string }>({ start: { name: me?.workspace ?? "" }, send });

  async function send({ name }: { name: string }) {
    await take(client.POST("/api/v1/workspace/name", { body: { name } }));
    await queries.invalidateQueries({ queryKey: ["auth"] });
    notify("Named.");
  }

  return (
    <Part title="Your firm or household">
      <KitForm kit={kit}>
        <Grid gap="4">
          <Field name="name" label="Name" help="Others read it where you share a pool." />
          <FormProblem shown={["name"]} />
          <Send action="Name it" />
        </Grid>
      </KitForm>
    </Part>
  );
}

function Audit() {
  const audit = useQuery(auditQuery());
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  return (
    <Part title="Who did what">
      <Grid as="ul" gap="1" listStyleType="none" fontSize="note" mb="3">
        {audit.data?.slice(0, 30).map((line) => (
          <li key={line.at + line.action}>
            {dayName(line.at, zone)} {clock(line.at, zone)}: {line.person || "somebody"},{" "}
            {line.action.replaceAll("_", " ")}
            {line.address && ` from ${line.address}`}
          </li>
        ))}
      </Grid>
      <a href="/api/v1/audit.csv" download="audit.csv">
        All of it as CSV
      </a>
    </Part>
  );
}
