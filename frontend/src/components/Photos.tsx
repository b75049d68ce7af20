import { Box, chakra, Flex, Grid, Heading, Image, Link, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { takeBack } from "../api/entries";
import { postOrKeep, SAVED } from "../api/outbox";
import { type PhotoLine, type PhotoOf, photoAddress, photosQuery } from "../api/photos";
import { personId } from "../lib/person";
import { smallerPhoto } from "../lib/smallerPhoto";
import { dayName } from "../lib/times";
import { Card } from "./Card";
import { notify } from "./notice";

const Take = chakra("label", {
  base: {
    display: "inline-flex",
    alignItems: "center",
    minH: "44px",
    px: "4",
    bg: "card",
    border: "1.5px solid",
    borderColor: "control",
    borderRadius: "10px",
    fontWeight: "600",
    cursor: "pointer",
    _hover: { borderColor: "ink" },
    "&:has(input:focus-visible)": { outline: "3px solid {colors.rope}", outlineOffset: "2px" },
  },
});

interface PhotosProps {
  poolId: string;
  zone: string;
  shows: PhotoOf;
  /** What they belong to; without it all of this kind. */
  about?: string;
  title?: string;
  children?: ReactNode;
}

/** Photos of one thing: taken or chosen, made small on the device, kept there until they are sent. */
export function Photos({ poolId, zone, shows, about = "", title = "Photos", children }: PhotosProps) {
  const found = useQuery(photosQuery(poolId));
  const mine = found.data?.photos.filter(
    (one) => one.shows === shows && (about === "" || one.about === about),
  );
  return (
    <Card as="section" aria-label={title} mt="4" data-noprint>
      <Flex justify="space-between" align="center" gap="3" wrap="wrap">
        <Heading as="h2" fontSize="lead">
          {title}
        </Heading>
        <TakePhoto poolId={poolId} shows={shows} about={about} />
      </Flex>
      {children}
      {mine !== undefined && mine.length > 0 && <PhotoRow photos={mine} poolId={poolId} zone={zone} />}
    </Card>
  );
}

export function TakePhoto({ poolId, shows, about = "" }: Pick<PhotosProps, "poolId" | "shows" | "about">) {
  const queries = useQueryClient();
  const [busy, setBusy] = useState(false);
  async function take(file: File | undefined) {
    if (file === undefined) return;
    setBusy(true);
    try {
      const body = {
        id: crypto.randomUUID(),
        at: null,
        person_id: personId(),
        image: await smallerPhoto(file),
        shows,
        about,
        note: "",
      };
      const sent = await postOrKeep(
        "/api/v1/pools/{pool_id}/photos",
        { path: { pool_id: poolId } },
        body,
        "A photo",
      );
      if (sent === SAVED) notify("The photo is kept on this device; it is sent when the server answers.");
      else {
        await queries.invalidateQueries({ queryKey: ["pool", poolId] });
        notify("The photo is kept.", () => void takeBack(body.id, "undone at once"));
      }
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error));
    } finally {
      setBusy(false);
    }
  }
  return (
    <Take>
      {busy ? "Sending the photo" : "Add a photo"}
      <chakra.input
        type="file"
        accept="image/jpeg,image/webp,image/png"
        srOnly
        disabled={busy}
        onChange={(event) => {
          void take(event.target.files?.[0]);
          event.target.value = "";
        }}
      />
    </Take>
  );
}

export function PhotoRow({
  photos,
  poolId,
  zone,
}: {
  photos: readonly PhotoLine[];
  poolId: string;
  zone: string;
}) {
  return (
    <Grid
      as="ul"
      listStyleType="none"
      p="0"
      mt="3"
      gap="3"
      templateColumns="repeat(auto-fill, minmax(8rem, 1fr))"
    >
      {photos.map((one) => (
        <Box as="li" key={one.entry_id}>
          <OnePhoto photo={one} poolId={poolId} zone={zone} />
        </Box>
      ))}
    </Grid>
  );
}

function OnePhoto({ photo, poolId, zone }: { photo: PhotoLine; poolId: string; zone: string }) {
  const said = [photo.note, dayName(photo.at, zone), photo.by].filter((part) => part !== "").join(", ");
  return (
    <>
      <Link
        href={photoAddress(poolId, photo.sha256)}
        target="_blank"
        rel="noreferrer"
        aria-label={`Photo: ${said}`}
        display="block"
      >
        <Image
          src={photoAddress(poolId, photo.sha256, true)}
          alt=""
          loading="lazy"
          w="100%"
          aspectRatio={photo.width > 0 ? `${photo.width} / ${photo.height}` : "4 / 3"}
          objectFit="cover"
          borderRadius="8px"
        />
      </Link>
      <Text fontSize="note" color="soft" mt="1">
        {said}
      </Text>
    </>
  );
}

/** Everything that was ever taken of a pool; nothing where nothing was. */
export function AllPhotos({ poolId, zone }: { poolId: string; zone: string }) {
  const found = useQuery(photosQuery(poolId));
  if (!found.data?.photos.length) return null;
  return (
    <Card as="section" aria-label="Photos" mb="5" data-noprint>
      <Heading as="h2" fontSize="lead">
        Photos
      </Heading>
      <PhotoRow photos={found.data.photos} poolId={poolId} zone={zone} />
    </Card>
  );
}

/** Before and after of the rescue begun last. */
export function BeforeAndAfter({ poolId, zone }: { poolId: string; zone: string }) {
  const found = useQuery(photosQuery(poolId));
  const { before, after } = found.data ?? {};
  if (!before || !after) return null;
  return (
    <Grid templateColumns="1fr 1fr" gap="3" mt="3">
      {[
        { title: "Before", photo: before },
        { title: "Now", photo: after },
      ].map(({ title, photo }) => (
        <Box key={title}>
          <Text fontWeight="650" mb="1">
            {title}
          </Text>
          <OnePhoto photo={photo} poolId={poolId} zone={zone} />
        </Box>
      ))}
    </Grid>
  );
}
