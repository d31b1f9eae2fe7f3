// What a view waits for may take long on a busy machine: a limit is for what hangs.
require('@testing-library/react').configure({ asyncUtilTimeout: 15000 })
