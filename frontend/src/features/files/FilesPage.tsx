import { chakra, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type DragEvent, useEffect, useId, useState } from "react";
import { useNavigate } from "react-router";
import { type ImportedFile, importsQuery, sendArchive, sendJournal, sendTable } from "../../api/files";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { Failed } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { dayName } from "../../lib/times";
import { TakeOut } from "./TakeOut";

const ZONE = Intl.DateTimeFormat().resolvedOptions().timeZone;
/** What comes in from elsewhere, and what goes out. */
export function FilesPage() {
  useEffect(() => {
    document.title = "Files · Kumpan";
  }, []);
  return (
    <>
      <Heading as="h1" fontSize="title" mb="4">
        Files
      </Heading>
      <Grid
        gap="4"
        templateColumns={{ base: "minmax(0,1fr)", lg: "repeat(2, minmax(0,1fr))" }}
        alignItems="start"
      >
        <BringIn />
        <TakeOut />
        <Before />
      </Grid>
    </>
  );
}

const Drop = chakra("label", {
  base: {
    display: "block",
    border: "2px dashed",
    borderColor: "control",
    borderRadius: "10px",
    p: "6",
    textAlign: "center",
    cursor: "pointer",
    "&[data-over]": { borderColor: "ink", bg: "paper" },
    "&:has(input:focus-visible)": { outline: "3px solid {colors.rope}", outlineOffset: "2px" },
  },
});

function BringIn() {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [over, setOver] = useState(false);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const why = useId();

  async function take(file: File | undefined) {
    if (file === undefined || busy) return;
    setBusy(true);
    setProblem(null);
    try {
      if (file.name.endsWith(".jsonl")) {
        const { name, added, known } = await sendJournal(file);
        notify(`${name}: ${added} entries came in, ${known} stood here already.`);
        await queries.invalidateQueries();
      } else if (file.name.endsWith(".zip")) {
        const { pools, entries } = await sendArchive(file);
        notify(`${pools} pools with ${entries} new entries came in.`);
        await queries.invalidateQueries();
      } else {
        const { file: taken } = await sendTable(file);
        await navigate(`/files/${taken.id}`);
      }
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    } finally {
      setBusy(false);
    }
  }

  const dropped = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    void take(event.dataTransfer.files[0]);
  };
  return (
    <Card as="section" aria-label="Bring in">
      <Heading as="h2" fontSize="lead" mb="2">
        Bring in
      </Heading>
      <Text mb="3">
        A notebook of tests and what went in, a list of products, pools or stops: as CSV or XLSX, with
        whatever headers it has. You see how each row is read before anything is kept.
      </Text>
      <Drop
        data-over={over ? "" : undefined}
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={dropped}
      >
        <Text fontWeight="650">{busy ? "Reading the file" : "Drop a file here, or choose one"}</Text>
        <Text fontSize="note" color="soft">
          CSV, XLSX, a pool’s journal (.jsonl) or a workspace (.zip)
        </Text>
        <chakra.input
          type="file"
          accept=".csv,.tsv,.txt,.xlsx,.jsonl,.zip"
          srOnly
          disabled={busy}
          aria-invalid={problem !== null}
          aria-describedby={problem === null ? undefined : why}
          onChange={(event) => {
            void take(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
      </Drop>
      {problem !== null && (
        <Text id={why} role="alert" color="accent" fontWeight="600" mt="2">
          {problem}
        </Text>
      )}
    </Card>
  );
}

const STATES: Record<string, string> = {
  open: "not brought in yet",
  queued: "being brought in",
  applied: "brought in",
  refused: "refused",
  undone: "taken back",
};

function Before() {
  const files = useQuery(importsQuery());
  if (files.isError) return <Failed error={files.error} again={() => void files.refetch()} />;
  if (!files.data?.length) return null;
  return (
    <Card as="section" aria-label="Files before" gridColumn="1 / -1">
      <Heading as="h2" fontSize="lead" mb="2">
        Files before
      </Heading>
      {files.data.map((file) => (
        <OneFile key={file.id} file={file} />
      ))}
    </Card>
  );
}

function OneFile({ file: { id, name, created_at, state } }: { file: ImportedFile }) {
  return (
    <Flex borderTop="1px solid" borderColor="hairline" py="2" gap="3" wrap="wrap" align="center">
      <PlainLink to={`/files/${id}`}>{name === "" ? "A file" : name}</PlainLink>
      <Text color="soft">
        {dayName(created_at, ZONE)}, {STATES[state] ?? state}
      </Text>
    </Flex>
  );
}
