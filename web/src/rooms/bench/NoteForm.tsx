import { Button, Textarea } from "@mantine/core";
import { useState } from "react";
import classes from "./BenchRun.module.css";

/** A note, in a word or in words. */
export function NoteForm({ onEnter }: { onEnter: (text: string) => void }) {
  const [text, setText] = useState("");
  const quick = ["Springs back", "Butter shows", "Soft", "Too firm", "Sweating"];
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim()) onEnter(text.trim());
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
