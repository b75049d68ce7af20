import { chakra, Flex } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { client, take } from "../api/client";
import { peopleQuery } from "../api/queries";
import { notify } from "../components/notice";
import { personStore } from "../lib/person";
import { useStore } from "../lib/store";
import { type Units, unitsStore } from "../lib/units";
import { MODES, type Mode, modeStore } from "../theme/mode";

const Small = chakra("select", {
  base: {
    minH: "44px",
    maxW: "9.5rem",
    px: "2",
    bg: "paper",
    color: "ink",
    border: "1px solid",
    borderColor: "hairline",
    borderRadius: "8px",
    fontSize: "note",
  },
});
const ADD = "add";
const MODE_NAMES: Record<Mode, string> = { paper: "Daylight", sun: "Bright sun", dusk: "Dusk" };

/** Who I am on this device, units, and the light: each chosen once. */
export function Choosers() {
  const units = useStore(unitsStore);
  const mode = useStore(modeStore);
  return (
    <Flex gap="2" align="center" wrap="wrap">
      <WhoAmI />
      <Small
        aria-label="Units"
        value={units}
        onChange={(event) => unitsStore.set(event.target.value as Units)}
      >
        <option value="us">US units</option>
        <option value="metric">Metric</option>
      </Small>
      <Small aria-label="Light" value={mode} onChange={(event) => modeStore.set(event.target.value as Mode)}>
        {MODES.map((value) => (
          <option key={value} value={value}>
            {MODE_NAMES[value]}
          </option>
        ))}
      </Small>
    </Flex>
  );
}

function WhoAmI() {
  const people = useQuery(peopleQuery());
  const me = useStore(personStore);
  const queries = useQueryClient();

  async function pick(value: string) {
    if (value !== ADD) return personStore.set(value);
    const name = window.prompt("Your name, as the log shall show it");
    if (name === null) return;
    try {
      const person = await take(
        client.POST("/api/v1/people", { body: { name, initials: "", id: crypto.randomUUID() } }),
      );
      await queries.invalidateQueries({ queryKey: ["people"] });
      personStore.set(person.id);
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error));
    }
  }

  const known = people.data?.some((person) => person.id === me) ? me : "";
  return (
    <Small aria-label="I am" value={known} onChange={(event) => void pick(event.target.value)}>
      <option value="">I am …</option>
      {people.data?.map((person) => (
        <option key={person.id} value={person.id}>
          {person.name}
        </option>
      ))}
      <option value={ADD}>Someone new …</option>
    </Small>
  );
}
