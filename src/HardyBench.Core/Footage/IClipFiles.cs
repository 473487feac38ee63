namespace HardyBench.Core.Footage;

/// <summary>Knows where clips lie.</summary>
public interface IClipFiles
{
    /// <exception cref="MediaException">There is no file for the clip.</exception>
    string PathOf(Clip clip);
}
