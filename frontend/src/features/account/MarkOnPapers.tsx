import { chakra, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import { client, take } from "../../api/client";
import { attempt } from "../../components/attempt";
import { SideButton } from "../../components/Button";
import { notify } from "../../components/notice";
import { Part } from "./AccountPage";

const MOST_BYTES = 600_000;

/** The picture at the head of reports, notices and logs. */
export function MarkOnPapers() {
  const [problem, setProblem] = useState<string | null>(null);

  const send = (image: string | null, said: string) =>
    attempt(async () => {
      await take(client.POST("/api/v1/workspace/mark", { body: { image } }));
      notify(said);
    });
  async function choose(file: File | undefined) {
    if (file === undefined) return;
    if (file.size > MOST_BYTES) {
      setProblem("This picture is too large; choose one under 600 kB.");
      return;
    }
    setProblem(null);
    await send(await asBase64(file), "It stands on your papers now.");
  }

  return (
    <Part title="Your mark on papers">
      <Text mb="3">A picture at the head of visit reports, season reports, notices and water logs.</Text>
      <Flex gap="3" align="center" wrap="wrap">
        <chakra.label
          display="inline-flex"
          alignItems="center"
          minH="44px"
          px="4"
          border="1px solid"
          borderColor="control"
          borderRadius="8px"
          fontWeight="650"
          cursor="pointer"
          css={{ "&:has(input:focus-visible)": { outline: "3px solid {colors.rope}", outlineOffset: "2px" } }}
        >
          Choose a picture
          <chakra.input
            type="file"
            accept="image/png,image/jpeg,image/webp"
            srOnly
            onChange={(event) => {
              void choose(event.target.files?.[0]);
              event.target.value = "";
            }}
          />
        </chakra.label>
        <SideButton onClick={() => void send(null, "No mark stands on your papers.")}>No picture</SideButton>
      </Flex>
      {problem !== null && (
        <Text role="alert" color="accent" fontWeight="600" mt="2">
          {problem}
        </Text>
      )}
    </Part>
  );
}

function asBase64(file: File): Promise<string> {
  return new Promise((done, fail) => {
    const reader = new FileReader();
    reader.onload = () => done(String(reader.result));
    reader.onerror = () => fail(new Error("The picture cannot be read; choose another one."));
    reader.readAsDataURL(file);
  });
}
