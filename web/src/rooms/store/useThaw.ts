/** When a block is to be moved so that it is ready at an hour. */
import { useQuery } from "@tanstack/react-query";
import { api, got, type Schemas } from "@/api/client";

export function useThaw(id: string, wantedAt: string | null, by: Schemas["Place"]) {
  return useQuery({
    queryKey: ["store", "thaw", id, wantedAt, by],
    queryFn: () =>
      got(
        api.GET("/api/blocks/{block_id}/thaw", {
          params: { path: { block_id: id }, query: { wanted_at: wantedAt ?? "", by } },
        }),
      ),
    enabled: wantedAt !== null,
    staleTime: 60_000,
  });
}
