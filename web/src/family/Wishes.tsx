import type { Schemas } from "../contract/client";
import { useWishes } from "../data/home";
import { useSay } from "./say";

type Wishes = Schemas["FamilyWishes"];

/** What is sent by e-mail. */
export function WishesForm({ page, token }: { page: Schemas["FamilyPage"]; token: string }) {
  const { say } = useSay();
  const wishes = useWishes(token);
  const now: Wishes = wishes.isPending ? wishes.variables : page.wishes;
  const set = (change: Partial<Wishes>) => wishes.mutate({ ...page.wishes, ...change });
  return (
    <section id="messages" className="mt-8">
      {page.mailed && (
        <fieldset className="m-0 border-0 p-0">
          <legend className="font-head text-lg">{say("messages")}</legend>
          <p className="fine">{say("messages.why", { teacher: page.teacher })}</p>
          {(["week", "digest", "none"] as const).map((mail) => (
            <label key={mail} className="flex min-h-touch items-center gap-2">
              <input
                type="radio"
                name="mail"
                className="min-h-6 w-6 accent-working"
                checked={now.mail === mail}
                onChange={() => set({ mail })}
              />
              {say(mail)}
            </label>
          ))}
          <label className="flex min-h-touch items-center gap-2">
            <input
              type="checkbox"
              className="min-h-6 w-6 accent-working"
              checked={now.remind && now.mail !== "none"}
              disabled={now.mail === "none"}
              onChange={(e) => set({ remind: e.target.checked })}
            />
            {say("remind")}
          </label>
        </fieldset>
      )}
      {wishes.error && <p role="alert">{wishes.error.message}</p>}
    </section>
  );
}

/** The other languages of the page, one touch away. */
export function LanguageSwitch({ page, token }: { page: Schemas["FamilyPage"]; token: string }) {
  const wishes = useWishes(token);
  const others = page.languages.filter((l) => l.id !== page.language);
  return others.map((l) => (
    <button
      key={l.id}
      type="button"
      lang={l.id}
      className="quiet min-h-0"
      onClick={() => wishes.mutate({ ...page.wishes, language: l.id })}
    >
      {l.name}
    </button>
  ));
}
