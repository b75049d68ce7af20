import { Box, Heading, Text } from "@chakra-ui/react";
import type { TrainingGame, TrainingReview } from "../../api/types";
import { Card } from "../../components/Card";

type Side = TrainingReview["learner"];

/** Yours and the plan's run on the very same pool, the truth at the end, and what made the difference. */
export function ReviewCard({ review, game }: { review: TrainingReview; game: TrainingGame }) {
  const won = review.learner.won_on_day;
  const rows: [string, (side: Side) => string][] = [
    ["All goals reached", ({ won_on_day }) => (won_on_day === null ? "not reached" : `on day ${won_on_day}`)],
    ["Chlorine", ({ tally }) => `${tally.chlorine_mg_l.toFixed(0)} ppm in all`],
    ["Money", ({ tally }) => `$${tally.cost.toFixed(0)}`],
    ["Pours, tests", ({ tally }) => `${tally.pours}, ${tally.tests}`],
    ["Hours without chlorine", ({ tally }) => String(tally.hours_without)],
    ["Highest free chlorine", ({ tally }) => tally.highest_mg_l.toFixed(0)],
  ];
  return (
    <Card as="section" aria-label="The review" mb="5">
      <Heading as="h2" fontSize="title" lineHeight="1.25">
        {won === null ? "Not reached this time" : `Reached on day ${won}`}
      </Heading>
      <Text mb="4">{review.lesson}</Text>
      <Box overflowX="auto">
        <Box as="table" w="100%" maxW="44rem" aria-label="Yours and the plan's">
          <thead>
            <tr>
              {["", "You", "The plan, same pool"].map((name) => (
                <Box as="th" key={name} textAlign="left" color="soft" fontSize="note" fontWeight="400" pr="4">
                  {name}
                </Box>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(([name, text]) => (
              <Box as="tr" key={name} borderTop="1px solid" borderColor="hairline">
                <Box as="th" textAlign="left" fontWeight="400" color="soft" fontSize="note" py="1.5" pr="4">
                  {name}
                </Box>
                <td>{text(review.learner)}</td>
                <td>{text(review.planner)}</td>
              </Box>
            ))}
          </tbody>
        </Box>
      </Box>
      <Heading as="h3" fontSize="body" mt="4" mb="1">
        The truth at the end
      </Heading>
      <Box as="ul" listStyleType="none" p="0" m="0">
        {review.learner.goals.map((goal) => (
          <li key={goal.key}>
            <span aria-hidden="true">{goal.met ? "✓ " : "– "}</span>
            {goal.title}: {goal.met ? "yes" : "no"} ({goal.text})
          </li>
        ))}
      </Box>
      <Heading as="h3" fontSize="body" mt="4" mb="1">
        What made the difference
      </Heading>
      {review.lessons.length === 0 ? (
        <Text>Nothing to mend: you did what the plan would.</Text>
      ) : (
        <Box as="ul" listStyleType="disc" pl="5" m="0">
          {review.lessons.map((lesson) => (
            <li key={lesson.code + lesson.text}>{lesson.text}</li>
          ))}
        </Box>
      )}
      <Text mt="3" fontSize="note" color="soft">
        {game.scenario.title}: an invented pool. Nothing here is advice for a real one.
      </Text>
    </Card>
  );
}
