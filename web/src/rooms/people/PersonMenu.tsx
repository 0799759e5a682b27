import { Menu, Modal, SegmentedControl, UnstyledButton } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { Suspense, useState } from "react";
import { useNavigate } from "react-router";
import { api, got, LEFT, Offline, type Schemas } from "@/api/client";
import { queries } from "@/api/queries";
import { forgetTheHouse } from "@/offline/forget";
import { lazily } from "@/wire/lazily";
import { tellLater, tellOtherPages } from "@/wire/leaving";

const OwnPassword = lazily(async () => (await import("./index")).OwnPassword);

type Likes = Schemas["Likes"];

const CHOICES: { key: keyof Likes; label: string; data: { value: string; label: string }[] }[] = [
  {
    key: "units",
    label: "Measures",
    data: [
      { value: "metric", label: "mm, g, °C" },
      { value: "imperial", label: "in, oz, °F" },
    ],
  },
  {
    key: "folds",
    label: "Folds are called",
    data: [
      { value: "letter", label: "letter, book" },
      { value: "single", label: "single, double" },
    ],
  },
  {
    key: "counts",
    label: "Count first",
    data: [
      { value: "butter", label: "butter layers" },
      { value: "leaves", label: "all leaves" },
    ],
  },
];

/** Who is here, how they like to read, and the way out. */
export function PersonMenu({ me }: { me: Schemas["Me"] }) {
  const go = useNavigate();
  const like = useMutation({
    mutationFn: (likes: Likes) => got(api.PUT("/api/session/likes", { body: likes })),
    // At once on the screen: a second choice must not be made from what was liked before the first.
    onMutate: (likes) =>
      queries.setQueryData<Schemas["Session"]>(["session"], (was) =>
        was?.me ? { ...was, me: { ...was.me, likes } } : was,
      ),
    onError: () => queries.invalidateQueries({ queryKey: ["session"] }),
    scope: { id: "likes" },
  });
  const leave = useMutation({
    mutationFn: () =>
      got(api.DELETE("/api/session")).catch((error) => {
        if (!(error instanceof Offline)) throw error;
        // here it is at once; the house hears of it with the next connection
        tellLater();
        const session = queries.getQueryData<Schemas["Session"]>(["session"]);
        return session ? { ...session, me: null } : undefined;
      }),
    onSuccess: async (session) => {
      // The way in first: what is watched must never stand without an answer. Then forget the rest.
      queries.setQueryData(["session"], session);
      window.dispatchEvent(new Event(LEFT));
      go("/");
      await forgetTheHouse(queries);
      tellOtherPages();
    },
  });
  const [asked, ask] = useState(false);
  return (
    <>
      <Modal opened={asked} onClose={() => ask(false)} title="Your password" size={420}>
        <Suspense>
          <OwnPassword done={() => ask(false)} />
        </Suspense>
      </Modal>
      <Menu position="right-end" width={250} closeOnItemClick={false}>
        <Menu.Target>
          <UnstyledButton p={9} fz={14} aria-label={`${me.username}: units, words, sign out`}>
            {me.username}
          </UnstyledButton>
        </Menu.Target>
        <Menu.Dropdown p={12}>
          {CHOICES.map(({ key, label, data }) => (
            <div key={key}>
              <Menu.Label px={0}>{label}</Menu.Label>
              <SegmentedControl
                fullWidth
                size="xs"
                aria-label={label}
                value={me.likes[key]}
                data={data}
                onChange={(value) => like.mutate({ ...me.likes, [key]: value } as Likes)}
              />
            </div>
          ))}
          <Menu.Divider my={12} />
          <Menu.Item closeMenuOnClick onClick={() => ask(true)}>
            Change your password
          </Menu.Item>
          <Menu.Item onClick={() => leave.mutate()}>Sign out</Menu.Item>
        </Menu.Dropdown>
      </Menu>
    </>
  );
}
