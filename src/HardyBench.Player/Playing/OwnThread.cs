namespace HardyBench.Player.Playing;

/// <summary>Work on a named thread of its own, so that the kernel's figures tell what each kind of work takes.</summary>
public static class OwnThread
{
    public static Task Start(string role, Action work) => Start(role, () =>
    {
        work();
        return true;
    });

    public static Task<T> Start<T>(string role, Func<T> work)
    {
        var done = new TaskCompletionSource<T>(TaskCreationOptions.RunContinuationsAsynchronously);
        new Thread(() =>
        {
            try
            {
                done.SetResult(work());
            }
            catch (Exception failure)
            {
                done.SetException(failure);
            }
        })
        { Name = role, IsBackground = true }.Start();
        return done.Task;
    }
}
