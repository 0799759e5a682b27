/** What a document was before: the versions that are kept, and one press to have one back. */
import { Button, Modal } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import type { Schemas } from "@/api/client";
import { sentence } from "@/api/queries";
import { day } from "@/app/time";
import classes from "./Earlier.module.css";

interface Props {
  opened: boolean;
  close: () => void;
  /** Names the document in the cache, and on the screen. */
  documentKey: readonly unknown[];
  name: string;
  list: () => Promise<Schemas["VersionLine"][]>;
  take: (revision: number) => Promise<unknown>;
  readOnly: boolean;
}

export function Earlier({ opened, close, documentKey, name, list, take, readOnly }: Props) {
  const versions = useQuery({
    queryKey: ["versions", ...documentKey],
    queryFn: list,
    enabled: opened,
    staleTime: 0,
  });
  const taking = useMutation({ mutationFn: take, onSuccess: close });
  const failed = versions.error ?? taking.error;
  return (
    <Modal opened={opened} onClose={close} title={`Earlier versions of ${name}`} size={560}>
      {failed && (
        <p role="alert" className="bar mind">
          {sentence(failed)}
        </p>
      )}
      {versions.data?.length === 0 && <p>Nothing was saved before this one.</p>}
      <ul className={classes.versions}>
        {versions.data?.map((version) => {
          const when = day(version.saved_at);
          return (
            <li key={version.revision}>
              <span>
                <b>{when}</b>
                {version.saved_by && <span className="quiet"> by {version.saved_by}</span>}
              </span>
              {!readOnly && (
                <Button
                  variant="default"
                  loading={taking.isPending && taking.variables === version.revision}
                  aria-label={`Go back to this version, ${when}`}
                  onClick={() => taking.mutate(version.revision)}
                >
                  Go back to this version
                </Button>
              )}
            </li>
          );
        })}
      </ul>
      {!readOnly && Boolean(versions.data?.length) && (
        <p className="quiet">What is there now stays among the earlier versions.</p>
      )}
    </Modal>
  );
}
