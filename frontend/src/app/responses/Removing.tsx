// Removing what is marked, and at once or within thirty days bringing it back.
import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, reasonOf } from "../../api/client";
import type { NumbersRequest } from "../../api/generated/wire";
import { counted } from "../../text/words";
import { AskFirst } from "../../ui/AskFirst";

type Numbers = NumbersRequest["numbers"];

type Done = (asked: readonly number[], happened: readonly number[]) => void;

/** What is told once it is done is told by the removal itself: the button that began it may be gone by then. */
function useRemoval(
  formId: string,
  does: (form: string, numbers: Numbers) => Promise<{ numbers: number[] }>,
  onDone: Done,
) {
  const queryClient = useQueryClient();
  return useMutation({
    mutationFn: (numbers: readonly number[]) => does(formId, numbers as unknown as Numbers),
    onSuccess: (reply, asked) => onDone(asked, reply.numbers),
    onSettled: async () => {
      for (const name of ["responses", "response"]) await queryClient.invalidateQueries({ queryKey: [name, formId] });
    },
  });
}

interface ButtonsProps {
  formId: string;
  numbers: readonly number[];
  /** Whether what is marked was removed before. */
  removed: boolean;
  onDone: (gone: { numbers: readonly number[]; stayed: number }) => void;
}

export function RemoveButton({ formId, numbers, removed, onDone }: ButtonsProps) {
  const remove = useRemoval(formId, removed ? api.bringBackResponses : api.removeResponses, (asked, happened) =>
    onDone({ numbers: removed ? [] : happened, stayed: asked.length - happened.length }),
  );
  const press = () => remove.mutate(numbers);
  return (
    <>
      {removed ? (
        <Button variant="outlined" color="inherit" loading={remove.isPending} onClick={press}>
          Bring back
        </Button>
      ) : (
        <AskFirst
          label="Remove …"
          color="inherit"
          warning={`${counted(numbers.length, "response")} will be gone from all views, and what was ordered is free again. Each can be brought back for 30 days.`}
          onDone={press}
        />
      )}
      {remove.isError && <span role="alert">{reasonOf(remove.error)}</span>}
    </>
  );
}

interface NoticeProps {
  formId: string;
  numbers: readonly number[];
  stayed: number;
  onClose: () => void;
}

/** What was just done, with the way back. */
export function RemovedNotice({ formId, numbers, stayed, onClose }: NoticeProps) {
  const back = useRemoval(formId, api.bringBackResponses, onClose);
  return (
    <Alert
      severity="info"
      onClose={onClose}
      sx={{ mb: 1 }}
      action={
        numbers.length > 0 ? (
          <Button color="inherit" loading={back.isPending} onClick={() => back.mutate(numbers)}>
            Undo
          </Button>
        ) : undefined
      }
    >
      {numbers.length > 0 && `${counted(numbers.length, "response")} removed. `}
      {stayed > 0 &&
        `${counted(stayed, "response")} stayed: money is waited for, or a plan runs, or somebody was quicker.`}
      {back.isError && reasonOf(back.error)}
    </Alert>
  );
}
