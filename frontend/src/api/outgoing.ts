import { queryOptions } from "@tanstack/react-query";
import { client, take } from "./client";
import type { components } from "./schema";

export type MailChosen = components["schemas"]["MailChosen"];
export type MailLine = components["schemas"]["MailLine"];
export type PushDevices = components["schemas"]["PushDevices"];
export type Letter = components["schemas"]["Letter"];

/** What who is signed in wants by mail. */
export const mailChoiceQuery = () =>
  queryOptions({ queryKey: ["mail-choice"], queryFn: () => take(client.GET("/api/v1/mail-choice")) });

/** The last messages that went out, wait, or were given up. */
export const outboxQuery = () =>
  queryOptions({ queryKey: ["outbox"], queryFn: () => take(client.GET("/api/v1/outbox")) });

/** Devices that messages come to, and the house's key. */
export const pushQuery = () =>
  queryOptions({ queryKey: ["push"], queryFn: () => take(client.GET("/api/v1/me/push")) });

/** Other programs that are told of entries. */
export const hooksQuery = () =>
  queryOptions({ queryKey: ["hooks"], queryFn: () => take(client.GET("/api/v1/hooks")) });
