import { useMutation, useQueryClient } from "@tanstack/react-query";
import { body, client } from "../contract/client";
import { forgetKept, keepFor } from "./kept";
import { leave } from "./leave";
import { sessionQuery } from "./people";
import { useSend } from "./queryClient";

/** Reports whether this browser has passkeys, and reads what a server asks of them. */
export const hasPasskeys = () =>
  typeof PublicKeyCredential !== "undefined" && "parseRequestOptionsFromJSON" in PublicKeyCredential;

const given = (credential: Credential | null) => {
  if (!(credential instanceof PublicKeyCredential))
    throw new Error("Nothing was chosen; nothing was changed.");
  return credential.toJSON() as Record<string, never>;
};

/** The device was asked and refused, or nobody chose: said in plain words. */
const plainly = async <T>(asking: Promise<T>): Promise<T> => {
  try {
    return await asking;
  } catch (e) {
    if (e instanceof DOMException && e.name === "InvalidStateError")
      throw new Error("This device has a passkey for this account already.");
    if (e instanceof DOMException) throw new Error("Nothing was chosen; nothing was changed.");
    throw e;
  }
};

/** Makes a passkey on this device. */
export const useAddPasskey = () =>
  useSend(
    async (password: string) => {
      const asked = await body(client.POST("/account/passkeys", { body: { password } }));
      const publicKey = PublicKeyCredential.parseCreationOptionsFromJSON(asked.options as never);
      const credential = given(await plainly(navigator.credentials.create({ publicKey })));
      return body(
        client.PUT("/account/passkeys", { body: { challenge: asked.challenge, name: "", credential } }),
      );
    },
    [{ fact: "account" }],
  );

export const useDropPasskey = () =>
  useSend(
    (passkey: string) =>
      body(client.DELETE("/account/passkeys/{passkey}", { params: { path: { passkey } } })),
    [{ fact: "account" }],
  );

/** Signs in with a passkey of this device. */
export function usePasskey(then: () => void) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async () => {
      await leave();
      const asked = await body(client.POST("/session/passkey"));
      const publicKey = PublicKeyCredential.parseRequestOptionsFromJSON(asked.options as never);
      const credential = given(await plainly(navigator.credentials.get({ publicKey })));
      return body(client.PUT("/session/passkey", { body: { challenge: asked.challenge, credential } }));
    },
    onSuccess: (me) => {
      queries.clear();
      forgetKept();
      keepFor(me.id);
      queries.setQueryData(sessionQuery.queryKey, me);
      then();
    },
  });
}
