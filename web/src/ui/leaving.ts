import { App } from "antd";
import { useNavigate } from "react-router";
import { comeIn, useChange } from "../api/queries";
import { toldOf } from "./Trouble";

/** Signs out in the given way; who comes in next begins at Today, not where you were. */
export function useLeaving(signOut: () => Promise<void>) {
  const out = useChange(signOut);
  const navigate = useNavigate();
  const { message } = App.useApp();
  const leave = () =>
    out.mutate(undefined, {
      onSuccess: () => {
        void navigate("/", { replace: true });
        comeIn(null);
      },
      onError: (error) => void message.error(toldOf(error)),
    });
  return { leave, busy: out.isPending };
}
