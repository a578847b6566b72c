import { useCallback } from 'react';
import type { Edit } from '../../../core/document';
import { jobActions } from '../../app/job';
import { useAppDispatch } from '../../app/store';

/** Carries out an edit. Edits with one mark in a row are one step of undo: typing in a field, say. */
export function useEdit(): (edit: Edit, mark?: string) => void {
  const dispatch = useAppDispatch();
  return useCallback((edit, mark) => void dispatch(jobActions.edited({ edit, mark })), [dispatch]);
}

/** Ends the present run of edits. */
export function useSettle(): () => void {
  const dispatch = useAppDispatch();
  return useCallback(() => void dispatch(jobActions.settled()), [dispatch]);
}
