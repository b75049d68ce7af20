import { Box, chakra, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { Trouble } from "../../api/client";
import {
  applyImport,
  dropImport,
  guessAgain,
  type ImportChoices,
  type ImportManner,
  type ImportPreview,
  type ImportView,
  importChoicesQuery,
  importQuery,
  previewQuery,
  type RowVerdict,
  type TableKind,
  undoImport,
} from "../../api/files";
import { choicesQuery, poolsQuery } from "../../api/queries";
import { attempt } from "../../components/attempt";
import { MainButton, SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { PickOne } from "../../components/Pick";
import { SelectField } from "../../components/SelectField";
import { Failed, Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { useStore } from "../../lib/store";
import { unitsStore } from "../../lib/units";
import { ColumnCard } from "./ColumnCard";

const KINDS: readonly { value: TableKind; label: string }[] = [
  { value: "notebook", label: "Tests and what went in" },
  { value: "stock", label: "Products" },
  { value: "pools", label: "Pools" },
  { value: "stops", label: "Stops of rounds" },
];

const Bar = chakra("progress", { base: { w: "100%", h: "10px", accentColor: "{colors.rope}" } });

/** One file: how it is read, what its rows become, brought in as one and taken back as one. */
export function ImportPage() {
  const { fileId = "" } = useParams();
  const units = useStore(unitsStore);
  const view = useQuery(importQuery(fileId, units));
  const choices = useQuery(importChoicesQuery());
  useEffect(() => {
    document.title = "A file · Kumpan";
  }, []);
  if (view.isError) return <Failed error={view.error} again={() => void view.refetch()} />;
  if (choices.isError) return <Failed error={choices.error} again={() => void choices.refetch()} />;
  if (view.data === undefined || choices.data === undefined) return <Loading what="the file" />;
  const { file } = view.data;
  return (
    <>
      <Text mb="2">
        <PlainLink to="/files">Files</PlainLink>
      </Text>
      <Heading as="h1" fontSize="title" mb="4" wordBreak="break-word">
        {file.name === "" ? "A file" : file.name}
      </Heading>
      {file.state === "open" || file.state === "refused" ? (
        <Reading key={file.id} view={view.data} choices={choices.data} />
      ) : (
        <Done view={view.data} />
      )}
    </>
  );
}

function Done({ view: { file, rows } }: { view: ImportView }) {
  const queries = useQueryClient();
  const undo = () =>
    attempt(async () => {
      const taken = await undoImport(file.id);
      await queries.invalidateQueries();
      notify(`${taken} entries are taken back; they stay visible in the log as such.`);
    });
  if (file.state === "queued")
    return (
      <Card aria-live="polite">
        <Text fontWeight="650" mb="2">
          {file.done} of {file.total} rows are read
        </Text>
        <Bar value={file.done} max={Math.max(1, file.total)} aria-label="Rows read" />
        <Text fontSize="note" color="soft" mt="2">
          This goes on by itself, also if you leave this page. All rows are written at once at the end.
        </Text>
      </Card>
    );
  return (
    <Card role="status">
      <Text fontSize="lead" fontWeight="650" mb="3">
        {file.state === "undone" ? "This file was taken back." : `${rows} rows were read and brought in.`}
      </Text>
      <Flex gap="3" wrap="wrap" align="center">
        <PlainLink to="/">To the pools</PlainLink>
        {file.state === "applied" && <SideButton onClick={() => void undo()}>Take it all back</SideButton>}
      </Flex>
    </Card>
  );
}

function Reading({ view, choices }: { view: ImportView; choices: ImportChoices }) {
  const { file } = view;
  const queries = useQueryClient();
  const navigate = useNavigate();
  const units = useStore(unitsStore);
  const [seen, setSeen] = useState(view);
  const [manner, setManner] = useState<ImportManner>(view.manner);
  const [verdict, setVerdict] = useState<RowVerdict | null>(null);
  const [busy, setBusy] = useState(false);
  const preview = useQuery(previewQuery(file.id, manner, verdict, true));

  const again = (as: { kind?: TableKind; tab?: number }) =>
    attempt(async () => {
      const found = await guessAgain(file.id, as);
      setSeen(found);
      setManner({ ...found.manner, pool_id: manner.pool_id, kit: manner.kit });
    });
  const apply = () =>
    attempt(async () => {
      setBusy(true);
      try {
        await applyImport(file.id, manner);
        await queries.invalidateQueries({ queryKey: ["imports", file.id, units] });
      } finally {
        setBusy(false);
      }
    });
  const drop = () =>
    attempt(async () => {
      await dropImport(file.id);
      await queries.invalidateQueries({ queryKey: ["imports"] });
      await navigate("/files");
    });
  return (
    <Grid gap="4">
      {file.state === "refused" && (
        <Text role="alert" color="accent" fontWeight="600">
          {file.trouble} Nothing was kept.
        </Text>
      )}
      <Manner
        view={seen}
        manner={manner}
        setManner={setManner}
        again={again}
        problem={
          preview.error instanceof Trouble && preview.error.field === "pool_id" ? preview.error.message : null
        }
      />
      <Card as="section" aria-label="Columns">
        <Heading as="h2" fontSize="lead" mb="1">
          What the columns hold
        </Heading>
        <Text color="soft" mb="3">
          {seen.as_before
            ? "Read as the last file with these headers."
            : "A guess by headers and content; correct what is wrong."}
        </Text>
        <Grid gap="3" templateColumns="repeat(auto-fill, minmax(13rem, 1fr))" alignItems="start">
          {manner.columns.map((column, n) => (
            <ColumnCard
              key={n}
              title={seen.header[n] || `Column ${n + 1}`}
              cells={seen.sample.map((row) => row[n] ?? "")}
              column={column}
              kind={manner.kind}
              choices={choices}
              onColumn={(next) =>
                setManner({ ...manner, columns: manner.columns.map((one, at) => (at === n ? next : one)) })
              }
            />
          ))}
        </Grid>
      </Card>
      <Rows preview={preview} verdict={verdict} setVerdict={setVerdict} />
      <Flex gap="3" wrap="wrap" align="center">
        <MainButton
          disabled={busy || preview.data === undefined || preview.isFetching}
          onClick={() => void apply()}
        >
          Bring it in
        </MainButton>
        <SideButton onClick={() => void drop()}>Forget this file</SideButton>
      </Flex>
    </Grid>
  );
}

interface MannerProps {
  view: ImportView;
  manner: ImportManner;
  setManner: (manner: ImportManner) => void;
  again: (as: { kind?: TableKind; tab?: number }) => Promise<void>;
  /** What is wrong with the pool. */
  problem: string | null;
}

/** What the file tells of, which sheet of it, of which pool, with which kit. */
function Manner({ view, manner, setManner, again, problem }: MannerProps) {
  const pools = useQuery(poolsQuery());
  const kits = useQuery(choicesQuery());
  const named = manner.columns.some(({ role }) => role === "pool");
  return (
    <Card as="section" aria-label="The file">
      <PickOne
        label="It tells of"
        options={KINDS}
        value={manner.kind}
        onPick={(kind) => void again({ kind, tab: manner.tab })}
      />
      <Grid gap="3" mt="4" templateColumns={{ base: "1fr", md: "repeat(3, 1fr)" }}>
        {view.tabs.length > 1 && (
          <SelectField
            label="Sheet"
            value={String(manner.tab)}
            options={view.tabs.map((name, n) => ({ value: String(n), label: name || `Sheet ${n + 1}` }))}
            onPick={(tab) => void again({ tab: view.tabs.findIndex((_, n) => String(n) === tab) })}
          />
        )}
        {manner.kind === "notebook" && !named && (
          <SelectField
            label="Which pool"
            value={manner.pool_id ?? ""}
            options={[
              { value: "", label: "Choose" },
              ...(pools.data?.pools ?? []).map(({ id, settings }) => ({ value: id, label: settings.name })),
            ]}
            onPick={(id) => setManner({ ...manner, pool_id: id === "" ? null : id })}
            problem={problem}
          />
        )}
        {manner.kind === "notebook" && (
          <SelectField
            label="Tested with"
            value={manner.kit}
            options={(kits.data?.kits ?? []).map(({ key, name }) => ({ value: key, label: name }))}
            onPick={(kit) => setManner({ ...manner, kit })}
          />
        )}
      </Grid>
    </Card>
  );
}

interface RowsProps {
  preview: { data?: ImportPreview | undefined; error: Error | null; refetch: () => unknown };
  verdict: RowVerdict | null;
  setVerdict: (verdict: RowVerdict | null) => void;
}

const WORDS: Record<string, string> = { made: "read", questioned: "to look at", refused: "left out" };

/** What the rows become, what is to be looked at first. */
function Rows({ preview: { data, error }, verdict, setVerdict }: RowsProps) {
  if (error instanceof Trouble && error.field === "pool_id") return null;
  if (error !== null)
    return (
      <Text role="alert" color="accent" fontWeight="600">
        {error.message}
      </Text>
    );
  if (data === undefined) return <Loading what="the rows" />;
  const shown = [
    { value: "all", label: "All" },
    ...(["questioned", "refused", "made"] as const).map((one) => ({
      value: one,
      label: `${data[one]} ${WORDS[one]}`,
    })),
  ] as const;
  return (
    <Card as="section" aria-label="Rows">
      <PickOne
        label={data.read < data.rows ? `The first ${data.read} of ${data.rows} rows` : `${data.rows} rows`}
        options={shown}
        value={verdict ?? "all"}
        onPick={(one) => setVerdict(one === "all" ? null : (one as RowVerdict))}
      />
      <Box as="ol" listStyleType="none" p="0" mt="3">
        {data.shown.map(({ number, verdict: found, says, remarks }) => (
          <Flex as="li" key={number} gap="3" py="2" borderTop="1px solid" borderColor="hairline">
            <Text color="soft" fontVariantNumeric="tabular-nums" minW="3.5rem">
              Row {number}
            </Text>
            <Box flex="1">
              {says !== "" && (
                <Text textDecoration={found === "refused" ? "line-through" : "none"}>{says}</Text>
              )}
              {remarks.map(({ text, column }) => (
                <Text
                  key={`${column} ${text}`}
                  fontSize="note"
                  color={found === "refused" ? "accent" : "soft"}
                  fontWeight={found === "refused" ? "600" : "400"}
                >
                  {text}
                </Text>
              ))}
            </Box>
          </Flex>
        ))}
      </Box>
    </Card>
  );
}
