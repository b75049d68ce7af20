import { chakra, Flex } from "@chakra-ui/react";
import { PlainLink } from "../components/TextLink";
import { useMe } from "../lib/me";
import { useStore } from "../lib/store";
import { type Units, unitsStore } from "../lib/units";
import { MODE_NAMES, MODES, type Mode, modeStore } from "../theme/mode";

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

/** Who I am, units, and the light. */
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
  const me = useMe();
  if (me === null || me.role === "guest") return null;
  return (
    <PlainLink to="/account" display="inline-flex" minH="44px" alignItems="center" fontSize="note">
      {me.name}: account
    </PlainLink>
  );
}
