import { useQuery } from "@tanstack/react-query";
import { clock } from "./clock";
import { sessionQuery } from "./queries";

/** The day of the studio, as 2026-05-05. */
export function useToday(): string {
  const session = useQuery(sessionQuery);
  return clock.today(session.data?.timezone);
}
