import type { Me } from "../../api/types";

export const ROLES: Record<Me["role"], string> = {
  office: "Office: all pools and people",
  technician: "Technician: the pools of the own rounds",
  owner: "Owner: the own pools",
  guest: "Guest: reads one pool",
};
