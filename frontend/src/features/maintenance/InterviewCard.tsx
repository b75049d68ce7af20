import { Box, Flex, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, take } from "../../api/client";
import { interviewQuery } from "../../api/queries";
import { MainButton, SideButton } from "../../components/Button";
import { Caution } from "../../components/Card";
import { notify } from "../../components/notice";
import { Failed } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { personId } from "../../lib/person";

/** A fault looked for, question by question; each says how to find its answer out. */
export function InterviewCard({ tree, poolId }: { tree: string; poolId: string }) {
  const queries = useQueryClient();
  const [answers, setAnswers] = useState<string[]>([]);
  const [kept, setKept] = useState(false);
  const at = useQuery(interviewQuery(tree, answers));
  if (at.isError) return <Failed error={at.error} again={() => setAnswers([])} />;
  if (at.data === undefined) return null;
  const { ask, end, cautions } = at.data;

  async function keep() {
    try {
      await take(
        client.POST("/api/v1/pools/{pool_id}/interviews", {
          params: { path: { pool_id: poolId } },
          body: { id: crypto.randomUUID(), at: null, person_id: personId(), tree, answers },
        }),
      );
      setKept(true);
      await queries.invalidateQueries({ queryKey: ["pool", poolId, "log"] });
      notify("Kept in the log.");
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error));
    }
  }

  return (
    <Box mt="4" borderLeft="3px solid" borderColor="rope" pl="4" aria-live="polite">
      {cautions.length > 0 && (
        <Caution mb="3">
          {cautions.map((caution) => (
            <Text key={caution} color="accent" fontWeight="600">
              {caution}
            </Text>
          ))}
        </Caution>
      )}
      {ask && (
        <>
          <Text fontSize="lead" fontWeight="700">
            {ask.text}
          </Text>
          <Text color="soft" mb="3">
            {ask.test}
          </Text>
          <Flex gap="3" wrap="wrap">
            {ask.replies.map((reply) => (
              <MainButton
                key={reply.key}
                disabled={at.isPlaceholderData}
                onClick={() => setAnswers([...answers, reply.key])}
              >
                {reply.label}
              </MainButton>
            ))}
          </Flex>
        </>
      )}
      {end && (
        <>
          <Text fontSize="lead" fontWeight="700">
            {end.title}
          </Text>
          <Text mb="3">{end.action}</Text>
          <Flex gap="3" wrap="wrap" align="center">
            {end.procedure && (
              <PlainLink to={`/pools/${poolId}/care/do/${end.procedure}`}>Step by step</PlainLink>
            )}
            {end.station === "sheet" && <PlainLink to={`/pools/${poolId}/plan`}>To the plan</PlainLink>}
            <SideButton disabled={kept} onClick={() => void keep()}>
              {kept ? "Kept" : "Keep in the log"}
            </SideButton>
          </Flex>
        </>
      )}
      {answers.length > 0 && (
        <SideButton mt="3" onClick={() => setAnswers(answers.slice(0, -1))}>
          One step back
        </SideButton>
      )}
    </Box>
  );
}
