import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { gameQuery, type TrainingState, trainingQuery } from "../../api/queries";
import type { TrainingGame } from "../../api/types";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { Failed, Loading } from "../../components/States";
import { useStore } from "../../lib/store";
import { type Units, unitsStore } from "../../lib/units";
import { Hands } from "./Hands";
import { ReviewCard } from "./ReviewCard";
import { ScenarioPicker } from "./ScenarioPicker";
import { Story } from "./Story";
import { useTraining } from "./useTraining";
import { clarityText, WaterDrawing } from "./WaterDrawing";

/** A pool that cannot be harmed: pick one, look after it, see what the plan would have done. */
export function TrainingPage() {
  const units = useStore(unitsStore);
  const scenarios = useQuery(trainingQuery(units));
  const practice = useTraining(units);
  useEffect(() => {
    document.title = "Practice · Kumpan";
  }, []);
  return (
    <>
      <Box mb="4">
        <Heading as="h1" fontSize="title">
          Practice
        </Heading>
        <Text color="soft">
          Invented pools with a hidden water, a noisy kit and a shelf. Nothing here touches your own pools.
        </Text>
      </Box>
      {scenarios.isPending && <Loading what="the practice pools" />}
      {scenarios.isError && <Failed error={scenarios.error} again={() => void scenarios.refetch()} />}
      {practice.state === null ? (
        scenarios.data && <ScenarioPicker scenarios={scenarios.data} onBegin={practice.begin} />
      ) : (
        <Table state={practice.state} practice={practice} units={units} />
      )}
    </>
  );
}

interface TableProps {
  state: TrainingState;
  practice: ReturnType<typeof useTraining>;
  units: Units;
}

/** The game under way. */
function Table({ state, practice, units }: TableProps) {
  const found = useQuery(gameQuery(state, units));
  const game = found.data;
  return (
    <>
      {found.isError && (
        <Box mb="4">
          <Failed error={found.error} again={practice.takeBack} />
        </Box>
      )}
      {found.isPending && <Loading what="the pool" />}
      {game?.review && <ReviewCard review={game.review} game={game} />}
      {game && (
        <Grid
          templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 27rem" }}
          gap="5"
          alignItems="start"
        >
          <Card as="section" aria-label="At the pool">
            <Seen game={game} />
            {!game.over && (
              <Hands game={game} busy={found.isFetching || practice.busy} move={practice.move} />
            )}
            <Flex gap="2" mt="5" wrap="wrap">
              {!game.over && <SideButton onClick={practice.finish}>Finish and compare</SideButton>}
              {state.moves.length > 0 && (
                <SideButton onClick={practice.takeBack}>Take the last move back</SideButton>
              )}
              {state.moves.length > 0 && (
                <SideButton onClick={practice.again}>The same pool again</SideButton>
              )}
              <SideButton onClick={practice.leave}>Another pool</SideButton>
            </Flex>
          </Card>
          <Card>
            <Story game={game} units={units} />
          </Card>
        </Grid>
      )}
    </>
  );
}

function Seen({ game }: { game: TrainingGame }) {
  return (
    <Box mb="5">
      <Flex justify="space-between" align="baseline" wrap="wrap" columnGap="4">
        <Heading as="h2" fontSize="lead">
          {game.scenario.title}
        </Heading>
        <Text fontVariantNumeric="tabular-nums" data-testid="game-time">
          Day {game.day}, {game.clock}; {game.days_left} of {game.scenario.days} days left
        </Text>
      </Flex>
      <Text fontSize="note" color="soft">
        {game.scenario.pool}. {game.scenario.story}
      </Text>
      <Grid templateColumns={{ base: "1fr", md: "300px minmax(0,1fr)" }} gap="5" mt="4" alignItems="center">
        <WaterDrawing clarity={game.clarity} />
        <Box>
          <Text fontWeight="650">{clarityText(game.clarity)}</Text>
          {game.odd.map((what) => (
            <Text key={what}>There are {what}.</Text>
          ))}
          <Text>Filter gauge {game.gauge}.</Text>
          <Text>Spent so far ${game.cost.toFixed(0)}.</Text>
          <Text fontSize="note" color="soft" mt="2">
            To reach: {game.scenario.goals.join("; ")}.
          </Text>
        </Box>
      </Grid>
    </Box>
  );
}
