import { DeleteOutlined, InboxOutlined } from "@ant-design/icons";
import { App, Button } from "antd";
import { Link, useNavigate } from "react-router";
import { server } from "../api/client";
import { useChange } from "../api/queries";
import type { ItemDraft } from "../api/types";
import { toldOf } from "../ui/Trouble";
import styles from "./ItemCard.module.css";

interface KeepingProps {
  id: string;
  draft: ItemDraft;
  archive: () => void;
}

/** Archive, delete. */
export function ItemKeeping({ id, draft, archive }: KeepingProps) {
  const { modal, message } = App.useApp();
  const navigate = useNavigate();
  const remove = useChange(server.removeItem, "items", "stash");
  const ask = () =>
    modal.confirm({
      title: `Delete ${draft.item.name}?`,
      content: "If lots, plans or orders name it, it is archived instead, and nothing of theirs changes.",
      okText: "Delete",
      okButtonProps: { danger: true },
      onOk: () =>
        remove
          .mutateAsync(id)
          .then(({ archived }) => {
            void message.info(
              archived ? "Lots, plans or orders name it: it is archived instead." : "It is deleted.",
            );
            void navigate("/supplies/items");
          })
          .catch((e: unknown) => void message.error(toldOf(e))),
    });
  return (
    <div className={styles.keeping}>
      <Button icon={<InboxOutlined />} onClick={archive}>
        {draft.archived ? "Restore" : "Archive it"}
      </Button>
      <Button danger icon={<DeleteOutlined />} onClick={() => void ask()}>
        Delete it
      </Button>
      <Link to="/supplies/items">All pieces</Link>
    </div>
  );
}
