import { PlayCircleOutlined } from "@ant-design/icons";
import { App, Button } from "antd";
import { useNavigate } from "react-router";
import { v4 as uuid } from "uuid";
import { Refusal, server } from "../api/client";
import { useChange } from "../api/queries";
import { usePreferences } from "../lib/preferences";

interface Props {
  plan: string;
  /** Saves what is seen of it first. */
  save?: () => Promise<void>;
  disabled?: boolean;
}

/** Has a plan at the chair: freezes it as it is, or goes to where it is already. */
export function ToTheChair({ plan, save, disabled = false }: Props) {
  const { message } = App.useApp();
  const { unit, paper } = usePreferences();
  const navigate = useNavigate();
  const start = useChange(
    async () => {
      await save?.();
      return server.startInstall({ plan, id: uuid(), unit, paper });
    },
    "installs",
    "plans",
    "plan",
  );
  return (
    <Button
      type="primary"
      size="large"
      icon={<PlayCircleOutlined aria-hidden />}
      loading={start.isPending}
      disabled={disabled}
      onClick={() =>
        start.mutate(undefined, {
          onSuccess: ({ id }) => void navigate(`/chair/${id}`),
          onError: (error) => {
            void message.error(error.message);
            // What has to be asked or read first stands in the plan.
            if (error instanceof Refusal && (error.fields["cautions"] ?? error.fields["(plan)"]))
              void navigate(`/plans/${plan}/attach`);
          },
        })
      }
    >
      To the chair
    </Button>
  );
}
