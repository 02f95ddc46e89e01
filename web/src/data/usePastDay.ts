import { useQuery } from "@tanstack/react-query";
import { pastDayQuery } from "./lesson";

export const usePastDay = (ladder: string, day: string) => useQuery(pastDayQuery(ladder, day));
