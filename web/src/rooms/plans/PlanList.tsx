import { ActionIcon, Button, FileButton, Menu } from "@mantine/core";
import { IconDots } from "@tabler/icons-react";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useOutletContext } from "react-router";
import { api, got, type Schemas, sendFile } from "@/api/client";
import { queries, sentence, usePlans } from "@/api/queries";
import { useTrade } from "@/api/trade";
import { Nothing, Title, Waiting } from "@/app/states";
import { FoldGlyph } from "@/drawings/Ribbon";
import { useSaying } from "@/measures/likes";
import { NewPlan } from "./NewPlan";
import classes from "./PlanList.module.css";

type Line = Schemas["PlanLine"];
const refresh = () => queries.invalidateQueries({ queryKey: ["plans"] });
const at = (plan_id: number) => ({ params: { path: { plan_id } } });

export function PlanList() {
  const me = useOutletContext<Schemas["Me"]>();
  const plans = usePlans();
  const go = useNavigate();
  const [gone, setGone] = useState<Line | null>(null);
  const [making, setMaking] = useState(false);
  const open = (made: Schemas["SavedPlan"]) => {
    refresh();
    go(`/plans/${made.id}`);
  };
  const upload = useMutation({
    mutationFn: (file: File) => sendFile<Schemas["SavedPlan"]>("/api/plans/file", file),
    onSuccess: open,
  });
  const copy = useMutation({
    mutationFn: (line: Line) => got(api.POST("/api/plans/{plan_id}/copy", at(line.id))),
    onSuccess: open,
  });
  const remove = useMutation({
    mutationFn: (line: Line) => got(api.DELETE("/api/plans/{plan_id}", at(line.id))),
    onSuccess: (_, line) => {
      setGone(line);
      refresh();
    },
  });
  const restore = useMutation({
    mutationFn: (line: Line) => got(api.POST("/api/plans/{plan_id}/restore", at(line.id))),
    onSuccess: () => {
      setGone(null);
      refresh();
    },
  });
  const head = me.role === "head";
  const failed = upload.error ?? copy.error ?? remove.error ?? restore.error;
  return (
    <>
      <div className="roomHead">
        <Title>Plans</Title>
        <h1>Plans</h1>
        <div className="actions">
          {(plans.data?.length ?? 0) > 1 && (
            <Button
              variant="default"
              size="md"
              component={Link}
              to={`/plans/compare?plans=${plans.data
                ?.slice(0, 2)
                .map((p) => p.id)
                .join(",")}`}
            >
              Side by side
            </Button>
          )}
          {head && (
            <>
              <FileButton
                accept="application/json,.json"
                onChange={(file) => file && upload.mutate(file)}
              >
                {(props) => (
                  <Button variant="default" size="md" {...props}>
                    Open a plan file
                  </Button>
                )}
              </FileButton>
              <Button size="md" onClick={() => setMaking(true)}>
                New plan
              </Button>
            </>
          )}
        </div>
      </div>
      {failed && (
        <div className="bar mind" role="alert">
          {sentence(failed)}
        </div>
      )}
      {gone && (
        <div className="bar" role="status">
          <span>“{gone.name}” is deleted.</span>
          <Button variant="default" onClick={() => restore.mutate(gone)}>
            Undo
          </Button>
        </div>
      )}
      {making && <NewPlan onMade={open} onClose={() => setMaking(false)} />}
      {plans.isPending && <Waiting what="the plans" />}
      {plans.isError && <Nothing error={plans.error} retry={plans.refetch} />}
      {plans.data?.length === 0 && !making && (
        <div className="empty">
          <h2>No plans yet</h2>
          <p>Say what dough you make and how much: the block, the folds and the sheets follow.</p>
          {head && <Button onClick={() => setMaking(true)}>New plan</Button>}
        </div>
      )}
      <ul className={`ruled ${classes.list}`}>
        {plans.data?.map((line) => (
          <PlanRow
            key={line.id}
            line={line}
            head={head}
            copy={() => copy.mutate(line)}
            remove={() => remove.mutate(line)}
          />
        ))}
      </ul>
    </>
  );
}

interface RowProps {
  line: Line;
  head: boolean;
  copy: () => void;
  remove: () => void;
}

function PlanRow({ line, head, copy, remove }: RowProps) {
  const { count, countWord, say, fold } = useSaying();
  const { said } = useTrade();
  const folds = line.folds.map(fold).join(", ");
  return (
    <li className={classes.row}>
      <Link to={`/plans/${line.id}`} className={classes.open}>
        <span className={classes.name}>
          <b>{line.name}</b>
          <small className="quiet">
            {said("family", line.family)} · {say("mass", line.total_g)}
          </small>
        </span>
        <span className={classes.folds} role="img" aria-label={folds || "no folds"} title={folds}>
          {line.folds.map((f, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: folds have no identity but their place
            <FoldGlyph key={i} fold={f} width={66} />
          ))}
        </span>
        <span className={classes.figure}>
          <b>{count(line.butter_layers, line.total_leaves)}</b>
          <small className="quiet">{countWord}</small>
        </span>
        <span className={classes.figure}>
          {line.pieces !== null && line.pieces !== undefined && (
            <>
              <b>{line.pieces}</b>
              <small className="quiet">pieces of {say("mass", line.piece_g ?? 0)}</small>
            </>
          )}
        </span>
      </Link>
      <Menu position="bottom-end">
        <Menu.Target>
          <ActionIcon variant="subtle" color="dark" size={44} aria-label={`More for ${line.name}`}>
            <IconDots size={20} />
          </ActionIcon>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item component="a" href={`/api/plans/${line.id}/file`} download>
            Download as a file
          </Menu.Item>
          {head && (
            <>
              <Menu.Item onClick={copy}>Make a copy</Menu.Item>
              <Menu.Item onClick={remove}>Delete</Menu.Item>
            </>
          )}
        </Menu.Dropdown>
      </Menu>
    </li>
  );
}
