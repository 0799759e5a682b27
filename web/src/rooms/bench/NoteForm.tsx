import { Button, Textarea } from "@mantine/core";
import { useHalfTyped } from "@/drafts/useHalfTyped";
import classes from "./BenchRun.module.css";

/** A note, in a word or in words. */
interface Props {
  /** Of which dough: a note that is half written is its own. */
  run: string;
  onEnter: (text: string) => void;
}

export function NoteForm({ run, onEnter }: Props) {
  const half = useHalfTyped(`note.${run}`, "");
  const [text, setText] = [half.value, half.set];
  const quick = ["Springs back", "Butter shows", "Soft", "Too firm", "Sweating"];
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (!text.trim()) return;
        half.clear();
        onEnter(text.trim());
      }}
    >
      <div className={classes.quick}>
        {quick.map((word) => (
          <Button key={word} size="lg" variant="default" onClick={() => onEnter(word)}>
            {word}
          </Button>
        ))}
      </div>
      <Textarea
        label="In words"
        autosize
        minRows={2}
        size="lg"
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
      />
      <Button type="submit" size="lg" mt={12} fullWidth disabled={!text.trim()}>
        Keep the note
      </Button>
    </form>
  );
}
