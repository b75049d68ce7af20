import { Text } from "@chakra-ui/react";
import { useState } from "react";
import { useParams } from "react-router";
import { client, take } from "../../api/client";
import { MainButton } from "../../components/Button";
import { Card } from "../../components/Card";

/** From the link in a message: one press, without signing in. */
export function UnsubscribePage() {
  const { secret = "" } = useParams();
  const [said, setSaid] = useState<string | null>(null);
  const end = async () => {
    try {
      await take(client.POST("/api/v1/auth/unsubscribe", { body: { secret } }));
      setSaid("Nothing more comes by mail. It can be chosen again under your name.");
    } catch (error) {
      setSaid(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <Card maxW="28rem">
      {said === null ? (
        <>
          <Text fontSize="lead" fontWeight="650" mb="3">
            End all mail from Kumpan?
          </Text>
          <MainButton onClick={() => void end()}>End it</MainButton>
        </>
      ) : (
        <Text role="status">{said}</Text>
      )}
    </Card>
  );
}
