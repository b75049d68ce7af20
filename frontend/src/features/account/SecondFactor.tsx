import { Grid, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, take } from "../../api/client";
import { SideButton } from "../../components/Button";
import { notify } from "../../components/notice";
import { FormProblem, fieldsOf, KitForm, useKit } from "../../forms/kit";
import { Part } from "./AccountPage";
import { Send } from "./SignInPage";

interface Offer {
  secret: string;
  uri: string;
  qr: readonly string[];
}
const CodeFields = fieldsOf<{ code: string }>();
const OffFields = fieldsOf<{ password: string }>();

/** A code of an authenticator app besides the password: on or off. */
export function SecondFactor({ on }: { on: boolean }) {
  return <Part title="Second factor">{on ? <TurnOff /> : <TurnOn />}</Part>;
}

function TurnOn() {
  const queries = useQueryClient();
  const [offer, setOffer] = useState<Offer | null>(null);
  const kit = useKit<{ code: string }>({ start: { code: "" }, send });

  async function begin() {
    try {
      setOffer(await take(client.POST("/api/v1/me/second-factor/offer")));
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error));
    }
  }
  async function send({ code }: { code: string }) {
    await take(client.POST("/api/v1/me/second-factor", { body: { secret: offer?.secret ?? "", code } }));
    await queries.invalidateQueries({ queryKey: ["me"] });
    notify("From now on a code is asked for. You are signed out everywhere else.");
  }

  if (offer === null)
    return (
      <>
        <Text mb="3">With an authenticator app on your phone a stolen password alone opens nothing.</Text>
        <SideButton onClick={() => void begin()}>Turn it on</SideButton>
      </>
    );
  return (
    <KitForm kit={kit}>
      <Grid gap="4">
        <Text>Scan this with the app, or type the secret into it; then type the code that it shows.</Text>
        <QrCode rows={offer.qr} label="The secret as a QR code" />
        <Text fontFamily="mono" overflowWrap="anywhere">
          {offer.secret}
        </Text>
        <CodeFields.Field name="code" label="Code" inputMode="numeric" autoComplete="one-time-code" />
        <FormProblem shown={["code"]} />
        <Send action="Turn it on" />
      </Grid>
    </KitForm>
  );
}

function TurnOff() {
  const queries = useQueryClient();
  const kit = useKit<{ password: string }>({ start: { password: "" }, send });

  async function send(typed: { password: string }) {
    await take(client.POST("/api/v1/me/second-factor/off", { body: typed }));
    await queries.invalidateQueries({ queryKey: ["me"] });
    notify("No code is asked for any more.");
  }

  return (
    <KitForm kit={kit}>
      <Grid gap="4">
        <Text>A code of your authenticator app is asked for at each signing in.</Text>
        <OffFields.Field
          name="password"
          label="Your password, to turn it off"
          type="password"
          autoComplete="current-password"
        />
        <FormProblem shown={["password"]} />
        <Send action="Turn it off" />
      </Grid>
    </KitForm>
  );
}

/** The modules as the server made them, drawn with the quiet border that scanners need. */
function QrCode({ rows, label }: { rows: readonly string[]; label: string }) {
  const size = rows.length + 8;
  const cells = rows.flatMap((row, y) =>
    [...row].flatMap((cell, x) => (cell === "1" ? [`M${x + 4} ${y + 4}h1v1h-1z`] : [])),
  );
  return (
    <svg viewBox={`0 0 ${size} ${size}`} width="220" height="220" role="img" aria-label={label}>
      <rect width={size} height={size} fill="white" />
      <path d={cells.join("")} fill="black" />
    </svg>
  );
}
