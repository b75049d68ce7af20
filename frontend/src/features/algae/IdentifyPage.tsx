import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { identifyQuery, keyQuestionsQuery } from "../../api/queries";
import type { Identified, KeyQuestion } from "../../api/types";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { PickOne } from "../../components/Pick";
import { PoolHeader } from "../../components/PoolHeader";
import { Failed, Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { KindDrawing } from "./KindDrawing";

const SHOWN = 3;

/** What is it in the water: look, place, touch and what came before; how sure that is, and what would settle it. */
export function IdentifyPage() {
  const { poolId = "" } = useParams();
  const questions = useQuery(keyQuestionsQuery());
  const [answers, setAnswers] = useState<Record<string, string>>({});
  const given = Object.entries(answers).map(([question, choice]) => `${question}:${choice}`);
  const found = useQuery(identifyQuery(given));
  return (
    <>
      <PoolHeader poolId={poolId} />
      {questions.isPending && <Loading what="the key" />}
      {questions.isError && <Failed error={questions.error} again={() => void questions.refetch()} />}
      {questions.data && (
        <Grid
          templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 26rem" }}
          gap="5"
          alignItems="start"
        >
          <Card as="section">
            <Heading as="h2" fontSize="lead" mb="3">
              What is it in the water?
            </Heading>
            <Grid gap="4">
              {questions.data.map((question) => (
                <Question
                  key={question.key}
                  question={question}
                  value={answers[question.key] ?? null}
                  isNext={given.length > 0 && found.data?.ask_next === question.key}
                  onPick={(choice) => setAnswers({ ...answers, [question.key]: choice })}
                />
              ))}
            </Grid>
            {given.length > 0 && (
              <SideButton mt="4" onClick={() => setAnswers({})}>
                Begin again
              </SideButton>
            )}
          </Card>
          {given.length > 0 && found.data && <Answer found={found.data} poolId={poolId} />}
        </Grid>
      )}
    </>
  );
}

interface QuestionProps {
  question: KeyQuestion;
  value: string | null;
  isNext: boolean;
  onPick: (choice: string) => void;
}

function Question({ question, value, isNext, onPick }: QuestionProps) {
  return (
    <Box borderLeft="3px solid" borderColor={isNext ? "accent" : "transparent"} pl="3">
      <PickOne
        label={isNext ? `${question.text} This tells most now.` : question.text}
        options={question.choices.map(({ key, label }) => ({ value: key, label }))}
        value={value}
        onPick={onPick}
      />
    </Box>
  );
}

function Answer({ found, poolId }: { found: Identified; poolId: string }) {
  return (
    <Card as="section" aria-label="What it is" aria-live="polite">
      <Text fontSize="title" fontWeight="700" lineHeight="1.25">
        {found.headline}
      </Text>
      <Text fontWeight="600" mb="3">
        {found.confidence.charAt(0).toUpperCase() + found.confidence.slice(1)}.
      </Text>
      <Box as="ul" listStyleType="none" p="0" m="0">
        {found.candidates.slice(0, SHOWN).map((one) => (
          <Flex
            as="li"
            key={one.kind}
            gap="3"
            py="2"
            borderTop="1px solid"
            borderColor="hairline"
            align="center"
          >
            <KindDrawing kind={one.kind} />
            <Box>
              <Text fontWeight="600">
                {one.name}, {Math.round(100 * one.share)} in 100
              </Text>
              <Text fontSize="note" color="soft">
                {one.what}
              </Text>
            </Box>
          </Flex>
        ))}
      </Box>
      <Text mt="3">
        <Text as="span" fontWeight="700">
          What settles it:
        </Text>{" "}
        {found.settles}
      </Text>
      <Text mt="2">
        <Text as="span" fontWeight="700">
          If it is:
        </Text>{" "}
        {found.then}
      </Text>
      <Text mt="3">
        <PlainLink to={`/pools/${poolId}/rescue${severityOf(found.candidates[0]?.kind)}`}>
          To the rescue board
        </PlainLink>
      </Text>
    </Card>
  );
}

/** The board opens at what it most likely is. */
function severityOf(kind: string | undefined): string {
  return kind === "mustard" || kind === "black" ? `?severity=${kind}` : "";
}
